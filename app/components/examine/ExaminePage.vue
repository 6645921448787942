<script setup lang="ts">
import { wentHome } from '#core/piece'

/** The frame of every Examine page: reads the examination, shows where one is, keeps it live. */
const { page } = inject(PIECE)!
const route = useRoute()
const id = computed(() => Number(route.params.id))
const session = useSession()
const {
  data: exam,
  failed,
  load,
} = useLive(
  'GET /api/pieces/:id/examination',
  (topic, piece) => topic === 'air' || piece === id.value,
  () => ({ id: id.value }),
)
const can = computed(() => session.may('examine') && !wentHome(page.value?.piece.state))
const open = computed(
  () => exam.value?.hazards.filter(h => h.standing !== 'cleared' && h.severity !== 'note').length ?? 0,
)
const unplaced = computed(() => exam.value?.findings.filter(f => f.place.shape === 'unplaced').length ?? 0)
const links = computed(
  () =>
    [
      ['', 'faces', unplaced.value ? String(unplaced.value) : ''],
      ['/walk', 'walk', exam.value ? `${exam.value.walk.done}/${exam.value.walk.total}` : ''],
      ['/finish', 'finish', ''],
      ['/wood', 'wood', ''],
      ['/hazards', 'hazards', open.value ? String(open.value) : ''],
      ['/parts', 'parts', ''],
      ['/patch', 'patch', ''],
      ['/photographs', 'photographs', ''],
      ['/report', 'report', ''],
    ] as const,
)
const here = (to: string) => route.path === `/pieces/${id.value}${to}`
</script>

<template>
  <div>
    <nav class="flex sm:flex-wrap overflow-x-auto gap-x-1 -mt-2 mb-3" :aria-label="w('exam.nav')">
      <NuxtLink
        v-for="[to, word, count] in links"
        :key="word"
        :to="`/pieces/${id}${to}`"
        class="px-3 min-h-11 shrink-0 inline-flex items-center gap-1.5 no-underline"
        :class="here(to) ? 'font-bold underline! decoration-2 underline-offset-8' : 'text-soft'"
        :aria-current="here(to) ? 'page' : undefined"
      >
        {{ w(`exam.${word}`)
        }}<span v-if="count" class="clock text-sm" :class="word === 'hazards' ? 'text-madder font-bold' : ''">{{
          count
        }}</span>
      </NuxtLink>
    </nav>
    <p v-if="failed" class="verdict verdict-stop">{{ failed.message }}</p>
    <p v-if="exam && !exam.faces.length && !here('')" class="verdict mb-3">
      {{ w('intake.noFaces') }} <NuxtLink :to="`/pieces/${id}`">{{ w('intake.addFaces') }}</NuxtLink>
    </p>
    <slot v-if="exam && page" :id="id" :exam="exam" :load="load" :can="can" />
    <p v-else-if="!failed">{{ w('loading') }}</p>
  </div>
</template>
