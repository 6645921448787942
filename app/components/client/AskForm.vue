<script setup lang="ts">
/** A question to a client, put together and looked at before it goes. */
const props = defineProps<{ pieceId: number; may: MayAsk }>()
const emit = defineEmits<{ asked: [] }>()
const { page } = inject(PIECE)!
const { money } = useFormat()
const { form, body, clear } = useAsking(() => props.may)
const shown = ref<AnswerOf<'POST /api/pieces/:id/approvals/preview'> | null>(null)
const busy = ref(false)
const others = computed(() => [
  { value: null, label: w('client.what.none') },
  ...props.may.ways.map(r => ({ value: r, label: w(`route.${r}`) })),
  ...props.may.beside.map(f => ({ value: f, label: w('client.what.sameWith', { finish: w(`finish.${f}`) }) })),
])
async function look() {
  busy.value = true
  shown.value = await send('POST /api/pieces/:id/approvals/preview', { id: props.pieceId, body: body() })
  busy.value = false
}
async function ask() {
  busy.value = true
  const done = await send('POST /api/pieces/:id/approvals', { id: props.pieceId, body: body() })
  busy.value = false
  shown.value = null
  if (!done) return
  clear()
  emit('asked')
}
const addWork = () => form.work.push({ says: '', price: null, days: null })
</script>

<template>
  <form class="grid gap-3 content-start" data-test="ask-form" @submit.prevent="look">
    <h2>{{ w('client.ask') }}</h2>
    <p>
      {{ page!.piece.client_email ? w('client.byMail', { to: page!.piece.client_email }) : w('client.noMail') }}
    </p>
    <fieldset class="grid gap-2">
      <legend class="sr-only">{{ w('client.asksAbout') }}</legend>
      <template v-if="may.surface">
        <SwitchField v-model="form.surface" :label="w('client.what.surface')" />
        <div v-if="form.surface && others.length > 1" class="grid sm:grid-cols-2 gap-3">
          <ChoiceField
            v-for="(_, i) in form.beside"
            :key="i"
            v-model="form.beside[i]!"
            :label="w('client.what.beside')"
            :options="others"
          />
        </div>
      </template>
      <template v-if="may.found">
        <SwitchField v-model="form.found" :label="w('client.what.found')" />
        <p class="caption">{{ may.found.join(' · ') }}</p>
      </template>
      <template v-for="i in may.hardware" :key="i.id">
        <template v-if="form.hardware[i.id]">
          <SwitchField
            v-model="form.hardware[i.id]!.on"
            :label="`${w('client.what.hardware')}: ${i.mark} ${i.name}, ${w(`parts.${i.state as 'missing'}`)}`"
          />
          <div v-if="form.hardware[i.id]!.on" class="grid sm:grid-cols-3 gap-3">
            <NumberField
              v-for="a in ['replace', 'match'] as const"
              :key="a"
              v-model="form.hardware[i.id]![a]"
              :label="w(`client.what.price.${a}`)"
              :min="0"
              :max="1_000_000"
            />
            <NumberField v-model="form.hardware[i.id]!.days" :label="w('client.what.workDays')" :min="0" :max="365" />
          </div>
        </template>
      </template>
      <fieldset v-if="may.bands.length">
        <legend>{{ w('client.what.bands') }}</legend>
        <SwitchField
          v-for="b in may.bands"
          :key="b.id"
          :model-value="form.bands.includes(b.id)"
          :label="`${b.id} ${b.title}`"
          @update:model-value="form.bands = turned(form.bands, b.id, $event)"
        />
      </fieldset>
      <div v-for="(x, i) in form.work" :key="i" class="grid sm:grid-cols-[1fr_9rem_6rem] gap-3">
        <TextField v-model="x.says" :label="w('client.what.workSays')" />
        <NumberField v-model="x.price" :label="w('client.what.workPrice')" :min="0" :max="1_000_000" />
        <NumberField v-model="x.days" :label="w('client.what.workDays')" :min="0" :max="365" />
      </div>
      <button v-if="form.work.length < 3" type="button" class="act act-quiet justify-self-start" @click="addWork">
        {{ w('client.what.addWork') }}
      </button>
      <template v-if="may.agreed">
        <SwitchField v-model="form.mostAsked" :label="w('client.what.cost')" />
        <p v-if="may.beyond" class="verdict" data-test="beyond">
          {{ w('client.beyond', { sum: money(may.beyond.foreseen_minor), worst: money(may.beyond.agreed_minor) }) }}
        </p>
        <NumberField
          v-if="form.mostAsked"
          v-model="form.most"
          :label="w('client.what.most')"
          :min="0"
          :max="1_000_000"
        />
      </template>
      <DateField v-model="form.dueOn" :label="w('client.what.dueOn')" />
      <DueWarning :due="form.dueOn" />
      <fieldset v-if="may.photographs.length">
        <legend>{{ w('client.what.photographs') }}</legend>
        <div class="flex flex-wrap gap-2">
          <button
            v-for="p in may.photographs"
            :key="p.address"
            type="button"
            class="border-4"
            :class="form.photographs.includes(p.address) ? 'border-verdigris' : 'border-transparent'"
            :aria-pressed="form.photographs.includes(p.address)"
            @click="form.photographs = turned(form.photographs, p.address, !form.photographs.includes(p.address))"
          >
            <img
              :src="`/api/photographs/${p.address}?size=thumb`"
              :alt="p.caption || w('letter.photograph')"
              class="h-20"
            />
          </button>
        </div>
      </fieldset>
    </fieldset>
    <label>{{ w('client.words') }} <textarea v-model="form.words" class="field" rows="4" maxlength="1000" /></label>
    <NumberField v-model="form.days" class="!w-40" :label="w('client.days')" :min="1" :max="90" required />
    <button class="act justify-self-start" :disabled="busy">{{ w('client.look') }}</button>
    <DialogBox v-if="shown" wide :title="w('client.preview', { client: shown.who })" @close="shown = null">
      <div data-test="preview">
        <LetterQuestion
          :shown="shown.shown"
          :who="shown.who"
          open
          :picture-at="address => `/api/photographs/${address}?size=thumb`"
        />
        <h2 class="mt-6">{{ shown.to ? w('client.letterTo', { to: shown.to }) : w('client.noLetter') }}</h2>
        <template v-if="shown.to">
          <p class="font-bold">{{ shown.letter.subject }}</p>
          <p class="whitespace-pre-line" data-test="letter">{{ shown.letter.text }}</p>
        </template>
      </div>
      <div class="flex gap-3 mt-6">
        <button type="button" class="act" :disabled="busy" @click="ask">
          {{ w(shown.to ? 'client.sendIt' : 'client.askIt') }}
        </button>
        <button type="button" class="act act-quiet" @click="shown = null">{{ w('client.notYet') }}</button>
      </div>
    </DialogBox>
  </form>
</template>
