<script setup lang="ts">
import type { ItemShown, OptionShown, QuestionShown } from '#core/approval'

/** One way to answer: what it is, what it costs, when it is ready. */
const props = defineProps<{ shown: QuestionShown; item: ItemShown; option: OptionShown; no: number }>()
const { money, day, optionSum } = useLetter(() => props.shown)
const its = computed(() => optionSum(props.item, props.no))
const letter = computed(() => (props.item.options.length > 1 ? `${'ABCDEFGHIJ'[props.no]}. ` : ''))
</script>

<template>
  <div>
    <strong class="text-xl">{{ letter }}{{ option.says }}</strong>
    <p v-for="line in option.lines" :key="line" data-test="way">{{ line }}</p>
    <!-- eslint-disable-next-line vue/no-v-html -- the kept picture, drawn by this shop's server -->
    <div v-if="option.picture" data-test="picture" class="my-2 max-w-xl" v-html="option.picture" />
    <p v-if="option.stands" class="caption">
      {{ w('letter.stands', option.stands) }}
    </p>
    <p v-if="its && its.adds !== null" class="clock">
      <strong>{{
        its.sum.likely_minor > 0 ? w('letter.adds', { sum: money(its.sum.likely_minor) }) : w('letter.noMore')
      }}</strong><template v-if="its.adds > 0">, {{ w('letter.laterBy', { n: its.adds }) }}</template>
    </p>
    <p v-else-if="its" class="clock">
      <strong data-test="price">{{ money(its.sum.likely_minor) }}</strong><template
        v-if="its.sum.worst_minor > its.sum.likely_minor"
        >, {{ w('letter.atWorst', { sum: money(its.sum.worst_minor) }) }}</template
      ><template v-if="its.sum.readyLikely"
        ><br />{{ w('letter.ready') }}: {{ w('letter.ifNow', { day: day(its.sum.readyLikely) }) }},
        {{ w('letter.latest', { day: day(its.sum.readySafe), by: day(shown.answerBy) }) }}</template
      >
    </p>
  </div>
</template>
