<script setup lang="ts">
import { DisclosureButton, DisclosurePanel, Disclosure } from '@headlessui/vue'
import { cautionText, type Caution } from '#core/safety'

/** What to mind before a step is started, in a line; the whole words by a touch. */
defineProps<{ cautions: readonly Caution[] }>()
</script>

<template>
  <Disclosure v-if="cautions.length" as="div" data-test="cautions">
    <DisclosureButton class="text-left min-h-11 text-madder">
      <strong>{{ w('bench.mind') }}</strong> {{ cautions.map(c => w(`caution.${c}`)).join(' · ') }}
    </DisclosureButton>
    <DisclosurePanel>
      <p v-for="c in cautions" :key="c" class="verdict">{{ cautionText(c) }}</p>
    </DisclosurePanel>
  </Disclosure>
</template>
