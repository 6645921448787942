<script setup lang="ts">
/** Products from a table: shown line by line, then taken. */
const emit = defineEmits<{ taken: [] }>()
type Read = AnswerOf<'POST /api/products/import'>
const text = ref('')
const shown = ref<Read | null>(null)
async function read(event: Event) {
  const input = event.target as HTMLInputElement
  const file = await input.files?.[0]?.text()
  input.value = ''
  if (file === undefined) return
  text.value = file
  shown.value = await send('POST /api/products/import', { body: { text: file, take: false } })
}
async function take() {
  if (!(await send('POST /api/products/import', { body: { text: text.value, take: true } }))) return
  useNotes().show(w('store.read.taken'))
  shown.value = null
  emit('taken')
}
</script>

<template>
  <FoldOut :title="w('store.read.title')" data-test="products-in">
    <label class="block"
      >{{ w('store.read.file') }} <input type="file" accept=".csv,.txt,text/csv" class="field" @change="read" /><span
        class="caption"
        >{{ w('store.read.why') }}</span
      ></label
    >
    <div v-if="shown" class="mt-3 grid gap-2">
      <p v-for="x in shown.wrong" :key="x.line" class="verdict verdict-stop">
        {{ w('store.read.wrong', { line: x.line, says: x.says }) }}
      </p>
      <p v-for="name in shown.fresh" :key="name">{{ w('store.read.fresh', { name }) }}</p>
      <p v-for="c in shown.changed" :key="c.name">
        {{ w('store.read.changed', { name: c.name, what: c.what.map(x => w(`store.read.field.${x}`)).join(', ') }) }}
      </p>
      <p v-if="shown.same" class="caption">{{ w('store.read.same', { n: shown.same }) }}</p>
      <button
        v-if="!shown.wrong.length && shown.fresh.length + shown.changed.length > 0"
        class="act justify-self-start"
        @click="take"
      >
        {{ w('store.read.take') }}
      </button>
    </div>
  </FoldOut>
</template>
