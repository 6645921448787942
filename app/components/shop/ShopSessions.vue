<script setup lang="ts">
/** Who is signed in and where; one's own, or all for the owner. Times are real, also in a demo. */
const { dayTime } = useFormat()
const session = useSession()
const { data: sessions, load } = useLive('GET /api/sessions', topic => topic === 'shop')
async function end(id: string) {
  await send('DELETE /api/sessions/:id', { id })
  await load()
}
</script>

<template>
  <FoldOut v-if="sessions" data-test="sessions" :title="`${w('shop.sessions')} (${sessions.length})`">
    <p class="caption">{{ w('shop.sessionsWhy') }}</p>
    <div v-for="s in sessions" :key="s.id" class="row flex flex-wrap items-center gap-3">
      <span class="grow">
        <strong v-if="session.may('people')">{{ s.name }}</strong> {{ s.device
        }}<template v-if="s.tablet">, {{ s.tablet }}</template>
        <span class="caption block"
          >{{ s.address }} · {{ w('shop.since', { at: dayTime(s.made_at) }) }} ·
          {{ w('shop.lastTouch', { at: dayTime(s.seen_at) }) }}</span
        >
      </span>
      <span v-if="s.here" class="caption">{{ w('shop.here') }}</span>
      <button v-else class="act act-quiet" @click="end(s.id)">{{ w('shop.end') }}</button>
    </div>
  </FoldOut>
</template>
