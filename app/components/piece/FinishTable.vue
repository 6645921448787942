<script setup lang="ts">
import type { FinishLine } from '#core/ground'

/** All finishes on this piece beside each other; the restorer picks. */
const props = defineProps<Trial>()
const emit = defineEmits<{ pick: [finish: FinishLine['finish']] }>()
const session = useSession()
const { money } = useFormat()
const lines = shallowRef<FinishLine[] | null>(null)
let worker: Worker | null = null
async function work() {
  const planning = await planningOf(props.id)
  worker?.terminate()
  worker = new Worker(new URL('../../workers/finishes.worker.ts', import.meta.url), { type: 'module' })
  worker.onmessage = (event: MessageEvent<{ lines: FinishLine[] }>) => {
    lines.value = event.data.lines
  }
  worker.postMessage(questionOf(planning, props))
}
onMounted(work)
watch(() => JSON.stringify([props.pick, props.route, props.overrides, props.faces]), work)
onUnmounted(() => worker?.terminate())
const mark = { 'possible': '●', 'doubtful': '◐', 'ruled-out': '○' } as const
const colour = { 'possible': 'text-moss', 'doubtful': 'text-ochre', 'ruled-out': 'text-madder' } as const
</script>

<template>
  <p v-if="!lines" role="status" class="caption">{{ w('finishes.working') }}</p>
  <div v-else class="overflow-x-auto">
    <table class="w-full text-left" data-test="finishes">
      <thead class="caption">
        <tr>
          <th class="py-1">{{ w('route.finish') }}</th>
          <th>{{ w('finishes.durable') }}</th>
          <th>{{ w('finishes.repairable') }}</th>
          <th />
          <th class="text-right">{{ w('finishes.coats') }}</th>
          <th class="text-right">{{ w('finishes.ready') }}</th>
          <th class="text-right">{{ w('finishes.use') }}</th>
          <th class="text-right">{{ w('finishes.voc') }}</th>
          <th v-if="session.may('see-prices')" class="text-right">{{ w('route.price') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="l in lines"
          :key="l.finish"
          class="border-t border-line"
          :class="l.finish === pick.finish ? 'bg-verdigris-wash' : ''"
        >
          <td>
            <button class="min-h-11 text-left" :disabled="l.standing === 'ruled-out'" @click="emit('pick', l.finish)">
              <span :class="colour[l.standing]" aria-hidden="true">{{ mark[l.standing] }}</span>{{ ' ' }}
              <strong :class="l.standing === 'ruled-out' ? 'text-soft font-normal' : ''">{{
                w(`finish.${l.finish}`)
              }}</strong><span v-if="l.why && l.standing === 'ruled-out'" class="caption block">{{ l.why }}</span>
            </button>
          </td>
          <template v-if="l.standing !== 'ruled-out'">
            <td class="clock">{{ l.durability }}</td>
            <td class="clock">{{ l.repairable }}</td>
            <td>{{ l.yellows ? w('finishes.ambers') : w('finishes.clear') }}</td>
            <td class="clock text-right">{{ l.coats }}</td>
            <td class="clock text-right">{{ w('finishes.days', { d: l.handle_d }) }}</td>
            <td class="clock text-right">{{ w('finishes.days', { d: l.use_d }) }}</td>
            <td class="clock text-right">{{ Math.round(l.voc_g) }} g</td>
            <td v-if="session.may('see-prices')" class="clock text-right font-bold">{{ money(l.total_minor) }}</td>
          </template>
          <td v-else colspan="8" />
        </tr>
      </tbody>
    </table>
    <p class="caption">{{ w('finishes.source') }}</p>
  </div>
</template>
