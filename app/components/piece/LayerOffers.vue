<script setup lang="ts">
import { actOf } from '#core/acts'
import type { OfferHere } from '#core/plan'
import { layerFill } from '#core/section'

/** What may be put in at a boundary: what nothing speaks against first, the others with what does. */
const props = defineProps<{ offers: readonly OfferHere[] }>()
const emit = defineEmits<{ take: [offer: OfferHere] }>()
const may = computed(() => props.offers.filter(o => o.against === null))
const not = computed(() => props.offers.filter(o => o.against !== null))
const called = (o: OfferHere) => `${o.called.slice(0, 1).toUpperCase()}${o.called.slice(1)}`
</script>

<template>
  <section data-test="offers">
    <h2>{{ w('surface.may') }}</h2>
    <p v-if="!offers.length" role="status" class="caption">{{ w('surface.asking') }}</p>
    <ul class="max-h-[26rem] overflow-y-auto">
      <li v-for="o in may" :key="`${o.act} ${o.product}`">
        <button
          type="button"
          class="w-full min-h-12 flex items-center gap-3 text-left border-b border-line"
          :data-offer="o.product"
          @click="emit('take', o)"
        >
          <span class="w-4 h-7 border border-line shrink-0" :style="{ background: layerFill(o.product) }" />
          <span
            >{{ called(o) }}<span class="caption block">{{ actOf({ kind: o.act }).called }}</span></span
          >
        </button>
      </li>
    </ul>
    <FoldOut v-if="not.length" :title="w('surface.against')">
      <ul class="max-h-80 overflow-y-auto">
        <li v-for="o in not" :key="`${o.act} ${o.product}`">
          <button
            type="button"
            class="w-full min-h-12 text-left border-b border-line text-soft"
            :data-offer="o.product"
            @click="emit('take', o)"
          >
            {{ called(o) }}<span class="caption block">{{ o.against }}</span>
          </button>
        </li>
      </ul>
    </FoldOut>
  </section>
</template>
