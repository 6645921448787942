<script setup lang="ts">
/** Entries of the logbook: when, what, by whom, in which air. `piece`: each says which piece it is of. */
defineProps<{ entries: AnswerOf<'GET /api/pieces/:id/log'>; piece?: boolean }>()
const { dayTime, time, degrees, amount } = useFormat()
/** What a finished step used up: from lots by volume, from pots by weight. */
const usedOf = ({ used_ml, used_g }: { used_ml: number | null; used_g: number | null }) =>
  [amount(used_ml), used_g === null ? '' : `${Math.round(used_g)} g`].filter(Boolean).join(', ')
const late = (e: { happened_at: string; recorded_at: string }) =>
  Math.abs(Date.parse(e.recorded_at) - Date.parse(e.happened_at)) > 90_000
</script>

<template>
  <p v-if="!entries.length" class="row">{{ w('log.nothing') }}</p>
  <div
    v-for="e in entries"
    :key="e.id"
    class="row grid grid-cols-[6rem_1fr_auto] md:grid-cols-[10rem_1fr_6rem] gap-4"
    data-test="entry"
    :data-kind="e.kind"
  >
    <span class="clock"
      >{{ piece ? time(e.happened_at) : dayTime(e.happened_at)
      }}<span v-if="late(e)" class="caption block">{{ w('log.written', { at: time(e.recorded_at) }) }}</span></span
    >
    <span class="min-w-0"
      ><NuxtLink
        v-if="piece && e.piece_id"
        :to="`/pieces/${e.piece_id}/log`"
        class="flex items-center min-h-11 font-semibold"
        >{{ e.piece_id }} {{ e.piece }}</NuxtLink
      ><span class="break-words">{{ e.says }}</span
      ><span class="caption block"
        >{{ e.by_name ?? w('client.client')
        }}<template v-if="e.temperature_C !== null && e.rh !== null">
          · {{ w('log.air', { t: degrees(e.temperature_C), rh: Math.round(e.rh * 100) }) }}</template
        ><template v-if="e.undoes_id"> · {{ w('log.undoes', { n: e.undoes_id }) }}</template></span
      >
      <span v-if="e.pictures.length" class="flex flex-wrap gap-2 mt-1">
        <a v-for="a in e.pictures" :key="a" :href="`/api/photographs/${a}`" target="_blank">
          <img :src="`/api/photographs/${a}?size=thumb`" class="h-20" :alt="w('examine.photograph')" />
        </a> </span></span
    ><span class="clock text-right" data-test="used">{{ usedOf(e) }}</span>
  </div>
  <p v-if="entries.length >= 1000" class="caption">{{ w('log.most') }}</p>
</template>
