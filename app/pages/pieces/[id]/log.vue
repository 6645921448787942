<script setup lang="ts">
const { page } = inject(PIECE)!
const { dayTime, time } = useFormat()
const id = computed(() => page.value!.piece.id)
const { data: log, failed } = useLive(
  'GET /api/pieces/:id/log',
  (topic, piece) => topic === 'all' || piece === id.value,
  () => ({ id: id.value }),
)
</script>

<template>
  <div class="max-w-4xl" data-test="log">
    <p class="caption">{{ w('log.keeps') }}</p>
    <PageState v-if="!log" :failed="failed" />
    <div v-for="e in log ?? []" :key="e.id" class="row grid grid-cols-[10rem_1fr] gap-4">
      <span class="clock"
        >{{ dayTime(e.happened_at)
        }}<span v-if="Math.abs(Date.parse(e.recorded_at) - Date.parse(e.happened_at)) > 90_000" class="caption block">{{
          w('log.written', { at: time(e.recorded_at) })
        }}</span></span
      >
      <span
        >{{ e.says
        }}<span class="caption block"
          >{{ e.by_name ?? w('client.client')
          }}<template v-if="e.undoes_id"> · {{ w('log.undoes', { n: e.undoes_id }) }}</template></span
        ></span
      >
    </div>
  </div>
</template>
