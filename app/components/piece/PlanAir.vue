<script setup lang="ts">
/** The air that this plan's solvent work wants in its rooms. */
const props = defineProps<{ id: number }>()
const { data: all } = useLive(
  'GET /api/pieces/:id/air',
  (topic, piece) => topic === 'schedule' || topic === 'shop' || (topic === 'piece' && piece === props.id),
  () => ({ id: props.id }),
)
const { dayTime } = useFormat()
const worst = computed(() => {
  const has = (v: string) => (all.value ?? []).some(x => x.verdict === v)
  return (['never', 'supplied', 'mask', 'unknown'] as const).find(has) ?? 'fine'
})
const bad = (v: string) => v === 'never' || v === 'supplied'
const m3 = (n: number) => (Math.ceil(n / 10) * 10).toLocaleString('en-GB')
</script>

<template>
  <FoldOut v-if="all?.length" class="row" data-test="plan-air" :data-worst="worst">
    <template #title
      ><span class="underline" :class="{ 'text-madder': bad(worst), 'text-ochre': worst === 'mask' }">{{
        w(`vapour.worst.${worst}`)
      }}</span></template
    >
    <ul class="grid gap-2">
      <li v-for="x in all" :key="x.stepId">
        <strong class="mr-2">{{ x.title }}</strong>
        <span class="caption">{{ [x.room, dayTime(x.at)].filter(Boolean).join(', ') }}</span>
        <span class="block" :class="{ 'text-madder': bad(x.verdict), 'text-ochre': x.verdict === 'mask' }">{{
          w(`vapour.${x.verdict}`, {
            lungs: m3(x.exposure_m3_h),
            fire: m3(x.explosive_m3_h),
            has: m3(x.supply_m3_h ?? 0),
          })
        }}</span>
        <span v-if="x.beside.length" class="caption block">{{
          w('vapour.beside', { what: x.beside.join(', ') })
        }}</span>
      </li>
    </ul>
    <WhyNote :label="w('plan.whence')">{{ w('vapour.whence') }}</WhyNote>
  </FoldOut>
</template>
