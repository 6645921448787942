<script setup lang="ts">
/** What is ready, whose client was told and whose was not: the list to call from. */
const { data: ready, load } = useLive('GET /api/ready', topic => topic === 'piece' || topic === 'pieces')
const session = useSession()
const { dayTime, day } = useFormat()
async function tell(p: { id: number; rowVersion: number }, by: 'mail' | 'word') {
  if (await send('POST /api/pieces/:id/told', { id: p.id, body: { rowVersion: p.rowVersion, by } })) await load()
}
</script>

<template>
  <section v-if="ready?.length" class="mb-6" data-test="ready-list">
    <h2>{{ w('ready.title') }}</h2>
    <div v-for="p in ready" :key="p.id" class="row flex flex-wrap gap-x-4 gap-y-1 items-center">
      <NuxtLink
        :to="`/pieces/${p.id}/client`"
        class="grow basis-60 font-bold no-underline min-h-11 inline-flex items-center"
        >{{ p.id }} {{ p.name }}</NuxtLink
      >
      <span
        >{{ p.client }} <a v-if="p.phone" :href="`tel:${p.phone}`" class="clock underline">{{ p.phone }}</a></span
      >
      <span :class="p.told_at ? 'caption' : 'text-ochre font-bold'">{{
        p.told_at ? w('ready.told', { at: dayTime(p.told_at) }) : w('ready.notTold')
      }}</span>
      <span v-if="p.ready_at" class="caption">{{ w('ready.since', { day: day(p.ready_at) }) }}</span>
      <span v-if="session.may('quote')" class="flex gap-2">
        <button v-if="p.email" class="act act-quiet" @click="tell(p, 'mail')">{{ w('ready.byMail') }}</button>
        <button class="act act-quiet" @click="tell(p, 'word')">{{ w('ready.byWord') }}</button>
      </span>
    </div>
  </section>
</template>
