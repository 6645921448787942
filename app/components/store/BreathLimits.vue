<script setup lang="ts">
/** Limits in air: the usual ones, and the shop's own beside them. */
defineProps<{ solvents: AnswerOf<'GET /api/breath'>['solvents'] }>()
const emit = defineEmits<{ changed: [] }>()
type Solvent = AnswerOf<'GET /api/breath'>['solvents'][number]
const session = useSession()
const { draft, errors, submit } = useForm('PUT /api/breath/limits', () => ({
  slug: 'acetone' as Solvent['slug'],
  mg_m3: null as number | null,
  source: '',
}))
const open = ref<Solvent['slug'] | null>(null)
function begin(x: Solvent) {
  draft.value = { slug: x.slug, mg_m3: x.own?.mg_m3 ?? x.usual_mg_m3, source: x.own?.source ?? '' }
  open.value = x.slug
}
async function set(usual: boolean) {
  if (usual) draft.value = { ...draft.value, mg_m3: null, source: '' }
  if (!(await submit({}))) return
  open.value = null
  emit('changed')
}
</script>

<template>
  <FoldOut :title="w('breath.limits')" class="row" data-test="limits">
    <div v-for="x in solvents" :key="x.slug" class="row">
      <p class="flex flex-wrap items-center gap-x-4">
        <strong>{{ x.name }}</strong>
        <span class="caption grow">{{ w('breath.usual', { mg: x.usual_mg_m3, lel: x.lel_pct }) }}</span>
        <span v-if="x.own">{{ w('breath.own', { mg: x.own.mg_m3, source: x.own.source }) }}</span>
        <button v-if="session.may('shop') && open !== x.slug" class="act act-quiet" @click="begin(x)">
          {{ w('breath.set') }}
        </button>
      </p>
      <form v-if="open === x.slug" class="flex flex-wrap items-end gap-3 mt-1" @submit.prevent="set(false)">
        <NumberField v-model="draft.mg_m3" :label="w('breath.mg')" :min="0.1" :step="0.1" :error="errors.mg_m3" />
        <TextField v-model="draft.source as string" :label="w('breath.source')" :error="errors.source" />
        <button class="act">{{ w('breath.set') }}</button>
        <button v-if="x.own" type="button" class="act act-quiet" @click="set(true)">
          {{ w('breath.usualAgain') }}
        </button>
        <button type="button" class="act act-quiet" @click="open = null">{{ w('cancel') }}</button>
      </form>
    </div>
    <WhyNote :label="w('plan.whence')">{{ w('breath.limitsWhy') }}</WhyNote>
  </FoldOut>
</template>
