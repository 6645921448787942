<script setup lang="ts">
/** A list from a file: shown line by line, then taken all together. */
type List = BodyOf<'POST /api/lists/read'>['list']
const props = defineProps<{ list: List }>()
const emit = defineEmits<{ taken: [] }>()
type Read = AnswerOf<'POST /api/lists/read'>
const FILES = {
  products: '.csv,.txt,text/csv',
  lots: '.csv,.txt,text/csv',
  clients: '.vcf,.csv,.txt,text/vcard',
  recipes: '.csv,.txt,text/csv',
  pots: '.csv,.txt,text/csv',
} as const
const text = ref('')
const shown = ref<Read | null>(null)
const ask = (take: boolean) => send('POST /api/lists/read', { body: { list: props.list, text: text.value, take } })
async function read(event: Event) {
  const file = await chosenText(event)
  if (file === undefined) return
  text.value = file
  shown.value = await ask(false)
}
async function take() {
  if (!(await ask(true))) return
  useNotes().show(w('lists.read.taken'))
  shown.value = null
  emit('taken')
}
const whatOf = (what: readonly string[]) => what.map(x => w(`lists.read.field.${x as 'grit'}`)).join(', ')
</script>

<template>
  <FoldOut :title="w(`lists.read.of.${list}`)" :data-test="`${list}-in`">
    <label class="block"
      >{{ w(`lists.read.file.${list}`) }} <input type="file" :accept="FILES[list]" class="field" @change="read" /><span
        class="caption"
        >{{ w(`lists.read.why.${list}`) }}</span
      ></label
    >
    <div v-if="shown" class="mt-3 grid gap-2">
      <p v-for="x in shown.wrong" :key="x.line" class="verdict verdict-stop">
        {{ w('lists.read.wrong', { line: x.line, says: x.says }) }}
      </p>
      <p v-for="(name, i) in shown.fresh.slice(0, 40)" :key="i">{{ w('lists.read.fresh', { name }) }}</p>
      <p v-for="(c, i) in shown.changed.slice(0, 40)" :key="i">
        {{ w('lists.read.changed', { name: c.name, what: whatOf(c.what) }) }}
      </p>
      <p v-if="shown.fresh.length + shown.changed.length > 40" class="caption">
        {{ w('lists.read.all', { fresh: shown.fresh.length, changed: shown.changed.length }) }}
      </p>
      <p v-if="shown.same" class="caption">{{ w('lists.read.same', { n: shown.same }) }}</p>
      <button
        v-if="!shown.wrong.length && shown.fresh.length + shown.changed.length > 0"
        class="act justify-self-start"
        @click="take"
      >
        {{ w('lists.read.take') }}
      </button>
    </div>
  </FoldOut>
</template>
