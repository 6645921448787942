<script setup lang="ts">
/** How other devices of the shop open it: address, a code for a camera, and what to compare before it is trusted. */
const { day } = useFormat()
const { data } = useLive('GET /api/lan', () => false)
const lan = computed(() => (data.value?.on ? data.value : null))
const code = computed(() => lan.value?.code && `data:image/svg+xml;utf8,${encodeURIComponent(lan.value.code)}`)
</script>

<template>
  <section v-if="data" data-test="lan">
    <h2>{{ w('lan.title') }}</h2>
    <template v-if="lan">
      <div class="row flex flex-wrap gap-6">
        <img v-if="code" :src="code" :alt="w('lan.code')" class="w-40 h-40 bg-white" />
        <div class="grow min-w-0">
          <p
            v-for="(address, i) in lan.addresses"
            :key="address"
            class="clock"
            :class="i ? '' : 'text-xl font-semibold'"
          >
            {{ address }}
          </p>
          <p v-if="!lan.addresses.length">{{ w('lan.nowhere') }}</p>
          <p v-else class="caption mt-2">{{ w('lan.first') }}</p>
        </div>
      </div>
      <p class="caption mt-2">{{ w('lan.compare', { until: day(lan.until) }) }}</p>
      <p class="clock text-sm break-all" data-test="fingerprint">{{ lan.fingerprint }}</p>
    </template>
    <p v-else class="row">{{ w('lan.off') }}</p>
    <p class="caption mt-2">{{ w('lan.proxy') }}</p>
  </section>
</template>
