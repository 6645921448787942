<script setup lang="ts">
import { type ItemShown, type ItemStanding, type QuestionShown, type Reply, withName } from '#core/approval'

/**
 * A question as its client reads it. While it is open each item takes an answer (`name` of its radio: `fieldOf`); needs
 * no script.
 */
const props = defineProps<{
  shown: QuestionShown
  who: string
  open: boolean
  /** where a photograph is fetched */
  pictureAt: (address: string) => string
  standing?: readonly { no: number; state: ItemStanding }[]
  replies?: readonly { no: number; reply: Reply }[]
}>()
const { money, sumOf } = useLetter(() => props.shown)
const name = computed(() => ('name' in props.shown.client ? props.shown.client.name : props.who))
const stateOf = (no: number) => props.standing?.find(s => s.no === no)?.state ?? 'open'
const replyTo = (no: number) => props.replies?.find(r => r.no === no)?.reply ?? null
/** Hardware is left as it is by an option of its own. */
const othersOf = (item: ItemShown) => (item.kind === 'hardware' ? (['talk'] as const) : (['no', 'talk'] as const))
const id = useId()
const titleId = (no: number) => `${id}-${no}`
const worst = (no: number) => sumOf([[no, 0]])?.worst_minor ?? null
</script>

<template>
  <div class="text-lg">
    <p v-if="name" class="mt-2">{{ w('letter.to', { name }) }}</p>
    <p v-if="shown.words" class="mt-2 whitespace-pre-line" data-test="words">{{ withName(shown.words, name) }}</p>
    <div v-if="shown.photographs.length" class="grid grid-cols-2 sm:grid-cols-3 gap-3 mt-4">
      <figure v-for="p in shown.photographs" :key="p.address">
        <img :src="pictureAt(p.address)" :alt="p.caption || w('letter.photograph')" class="w-full" />
        <figcaption class="caption">{{ p.caption }}</figcaption>
      </figure>
    </div>
    <div
      v-for="item in shown.items"
      :key="item.no"
      class="row mt-5"
      role="group"
      data-test="item"
      :aria-labelledby="titleId(item.no)"
    >
      <h2 :id="titleId(item.no)" class="!text-xl">{{ item.title }}</h2>
      <p v-if="item.says" data-test="item-question">{{ item.says }}</p>
      <p v-if="item.kind === 'colour'" class="caption">{{ w('letter.colourGuide') }}</p>
      <p v-for="reason in item.why" :key="reason" class="caption">{{ reason }}</p>
      <p v-if="item.gate" class="verdict">
        {{ w('letter.gate', { fails: item.gate, sum: worst(item.no) === null ? '' : money(worst(item.no)!) }) }}
      </p>
      <template v-if="open && stateOf(item.no) === 'open'">
        <label v-for="(o, i) in item.options" :key="i" class="flex gap-4 mt-4 min-h-12 cursor-pointer">
          <input type="radio" :name="fieldOf(item.no)" :value="i" class="size-6 mt-1 shrink-0" /><LetterOption
            :shown="shown"
            :item="item"
            :option="o"
            :no="i"
          />
        </label>
        <label v-for="other in othersOf(item)" :key="other" class="flex gap-4 items-center min-h-12">
          <input type="radio" :name="fieldOf(item.no)" :value="other" class="size-6 shrink-0" />{{
            w(`letter.choose.${other}`)
          }}
        </label>
      </template>
      <template v-else>
        <template v-for="(o, i) in item.options" :key="i">
          <LetterOption
            v-if="replyTo(item.no) === null || replyTo(item.no) === i || typeof replyTo(item.no) === 'string'"
            class="mt-3"
            :shown="shown"
            :item="item"
            :option="o"
            :no="i"
          />
        </template>
        <p v-if="stateOf(item.no) !== 'open'" class="mt-2 font-bold" data-test="standing">
          {{ w(`letter.standing.${stateOf(item.no) as 'yes'}`) }}
        </p>
      </template>
    </div>
  </div>
</template>
