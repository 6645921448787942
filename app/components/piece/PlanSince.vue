<script setup lang="ts">
/** What has changed since the client said yes. */
defineProps<{ since: NonNullable<PlanPage['since']> }>()
const { hours, money } = useFormat()
</script>

<template>
  <FoldOut
    v-if="since.changes.length || since.price_minor || since.needsAnswer"
    class="verdict"
    :class="since.needsAnswer ? 'verdict-stop' : ''"
    data-test="since"
    ><template #title
      >{{
        w('plan.since', {
          ready: w(since.days > 0 ? 'plan.later' : since.days < 0 ? 'plan.sooner' : 'plan.sameDay', {
            n: Math.abs(since.days),
          }),
          n: since.changes.length,
          min: `${since.minutes >= 0 ? '+' : '−'}${hours(Math.abs(since.minutes))}`,
          sum: `${since.price_minor >= 0 ? '+' : '−'}${money(Math.abs(since.price_minor))}`,
        })
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
