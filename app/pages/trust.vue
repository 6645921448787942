<script setup lang="ts">
/** For a device that does not know the shop yet: what to do, once, so that it trusts its address. */
definePageMeta({ layout: 'plain', wide: true })
const KINDS = ['security', 'about', 'wizard', 'keys', 'browser'] as const
/** The shop opened no door to its network: there is nothing to trust. */
const isOff = ref(false)
onMounted(async () => {
  isOff.value = (await fetch('/api/lan/authority', { method: 'HEAD' })).status === 404
})
const STEPS = ['one', 'two', 'three', 'four'] as const
</script>

<template>
  <div class="max-w-3xl">
    <h1>{{ w('trust.title') }}</h1>
    <p class="mt-3">{{ w('trust.why') }} {{ w('trust.need') }}</p>
    <p class="mt-3 font-semibold">{{ w('trust.compare') }}</p>
    <p v-if="isOff" class="verdict verdict-warn mt-5">{{ w('trust.off') }}</p>
    <a v-else class="act mt-5" href="/api/lan/authority" download="hantverk.crt">{{ w('trust.take') }}</a>
    <FoldOut v-for="kind in KINDS" :key="kind" class="row mt-2" :title="w(`trust.kinds.${kind}.on`)">
      <ol class="list-decimal pl-6 grid gap-2 mt-2">
        <li v-for="n in STEPS" :key="n">{{ w(`trust.kinds.${kind}.${n}`) }}</li>
      </ol>
    </FoldOut>
    <p class="mt-6">
      <NuxtLink class="underline" to="/">{{ w('trust.done') }}</NuxtLink>
    </p>
  </div>
</template>
