<script setup lang="ts">
import type { InternalApi } from 'nitropack/types'

/** Who is signed in and where; one's own, or all for the owner. Times are real, also in a demo. */
const { dayTime } = useFormat()
const session = useSession()
const { data: sessions, load } = useLive<InternalApi['/api/sessions']['get']>(
  () => '/api/sessions',
  topic => topic === 'shop' || topic === 'all',
)
async function end(id: string) {
  await send('DELETE', `/api/sessions/${id}`)
  await load()
}
</script>

<template>
  <details v-if="sessions" data-test="sessions">
    <summary class="min-h-11 py-2 underline cursor-pointer">{{ w('shop.sessions') }} ({{ sessions.length }})</summary>
    <p class="caption">{{ w('shop.sessionsWhy') }}</p>
    <div v-for="s in sessions" :key="s.id" class="row flex flex-wrap items-center gap-3">
      <span class="grow">
        <strong v-if="session.may('owner')">{{ s.name }}</strong> {{ s.device
        }}<template v-if="s.kind === 'tablet'">, {{ w('shop.tablet') }}</template>
        <span class="caption block"
          >{{ s.address }} · {{ w('shop.since', { at: dayTime(s.made_at) }) }} ·
          {{ w('shop.lastTouch', { at: dayTime(s.seen_at) }) }}</span
        >
      </span>
      <span v-if="s.here" class="caption">{{ w('shop.here') }}</span>
      <button v-else class="act act-quiet" @click="end(s.id)">{{ w('shop.end') }}</button>
    </div>
  </details>
</template>
