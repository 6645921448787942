<script setup lang="ts">
import { wentHome } from '#core/piece'

/** What went wrong with a piece: seen at a step, asked about, mended. */
import { SIGNS } from '#core/diagnose'

const route = useRoute()
const id = computed(() => Number(route.params.id))
const session = useSession()
const { page } = inject(PIECE)!
const {
  data: all,
  failed,
  load,
} = useLive(
  'GET /api/pieces/:id/faults',
  (topic, piece) => topic === 'piece' && piece === id.value,
  () => ({ id: id.value }),
)
const at = computed(() => Number(route.query.step) || null)
const sign = computed(() => SIGNS.find(s => s.slug === route.query.sign)?.name ?? '')
const seeing = ref(at.value !== null || sign.value !== '')
const can = computed(() => session.may('examine') && !wentHome(page.value?.piece.state))
async function see(what: { sign: string; stepId: number | null }) {
  if (!(await send('POST /api/pieces/:id/faults', { id: id.value, body: what }))) return
  seeing.value = false
  await load()
}
</script>

<template>
  <PageState v-if="!all" :failed="failed" />
  <div v-else class="max-w-3xl grid gap-4">
    <h2>{{ w('fault.title') }}</h2>
    <button v-if="can && !seeing" class="act justify-self-start" @click="seeing = true">{{ w('fault.see') }}</button>
    <SignChoice v-if="can && seeing" :steps="all.steps" :at="at" :part="sign" @see="see" />
    <p v-if="!all.faults.length && !seeing">{{ w('fault.none') }}</p>
    <FaultCard v-for="f in all.faults" :key="f.id" :fault="f" :can="can" @changed="load" />
    <div v-if="all.photographs.length && all.faults.some(f => !f.cause)" class="flex flex-wrap gap-2">
      <a v-for="p in all.photographs" :key="p.address" :href="`/api/photographs/${p.address}`" target="_blank"
        ><img :src="`/api/photographs/${p.address}?size=thumb`" :alt="p.caption || w('letter.photograph')" class="h-24"
      /></a>
    </div>
    <NuxtLink to="/faults" class="underline min-h-11 inline-flex items-center justify-self-start">{{
      w('fault.toAll')
    }}</NuxtLink>
  </div>
</template>
