<script setup lang="ts">
/** What has changed since the client said yes. */
const props = defineProps<{ since: NonNullable<PlanPage['since']> }>()
const { hours, money } = useFormat()
const signed = (n: number, says: (size: number) => string) => `${n >= 0 ? '+' : '−'}${says(Math.abs(n))}`
const ready = (days: number) => w(days > 0 ? 'plan.later' : 'plan.sooner', { n: Math.abs(days) })
/** Only what differs is said; the day always. */
const what = computed(() => {
  const { changes, minutes, price_minor, days } = props.since
  return [
    changes.length ? w('plan.sinceSteps', { n: changes.length }) : '',
    minutes ? signed(minutes, hours) : '',
    price_minor ? signed(price_minor, money) : '',
    days ? ready(days) : w('plan.sameDay'),
  ]
    .filter(Boolean)
    .join(', ')
})
</script>

<template>
  <FoldOut
    v-if="since.changes.length || since.price_minor || since.needsAnswer"
    class="verdict"
    :class="since.needsAnswer ? 'verdict-stop' : ''"
    data-test="since"
    ><template #title
      >{{ w('plan.since', { what })
      }}<strong v-if="since.needsAnswer" class="block text-madder">{{
        w(`plan.newAnswer.${since.needsAnswer}`)
      }}</strong></template
    >
    <p v-for="c in since.changes" :key="c.key" class="caption mt-1">
      <span v-if="c.before" class="line-through">{{ c.before.title }}, {{ c.before.attended_min }} min</span>{{ ' ' }}
      <span v-if="c.after">{{ c.after.title }}, {{ c.after.attended_min }} min</span>
    </p>
  </FoldOut>
</template>
