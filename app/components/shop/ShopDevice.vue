<script setup lang="ts">
import { known } from '~/offline/carried'

/** What this one device does: its screen stays on, alarms come while another program is in front. */
const screen = useScreenKept()
const notify = useNotifyKept()
const reasons = ref<{ screen: ReturnType<typeof cannotStayOn>; notify: ReturnType<typeof cannotNotify> } | null>(null)
const look = () => (reasons.value = { screen: cannotStayOn(), notify: cannotNotify() })
/** Pieces that it could be worked on with while there is no line; null until that is known. */
const carries = ref<number | null>(null)
onMounted(async () => {
  look()
  carries.value = Object.keys((await known<{ pieces: object }>('packed'))?.pieces ?? {}).length
})
async function setNotify(on: boolean) {
  notify.value = { on: on && (await Notification.requestPermission()) === 'granted' }
  look()
}
</script>

<template>
  <section v-if="reasons" data-test="device">
    <h2>{{ w('device.title') }}</h2>
    <div class="row">
      <SwitchField
        :model-value="screen.on && !reasons.screen"
        :label="w('device.screen')"
        :disabled="reasons.screen !== null"
        @update:model-value="screen = { on: Boolean($event) }"
      />
      <p v-if="reasons.screen" class="caption">{{ w(`device.cannot.${reasons.screen}`) }}</p>
    </div>
    <div class="row">
      <SwitchField
        :model-value="notify.on && !reasons.notify"
        :label="w('device.notify')"
        :disabled="reasons.notify !== null"
        @update:model-value="setNotify(Boolean($event))"
      />
      <p class="caption">{{ w(reasons.notify ? `device.cannot.${reasons.notify}` : 'device.notifyWhy') }}</p>
    </div>
    <div class="row" data-test="carries">
      <p>{{ w('device.noLine') }}</p>
      <p class="caption">
        {{ reasons.screen === 'insecure' ? w('device.cannot.insecure') : w('device.carries', { n: carries ?? 0 }) }}
      </p>
    </div>
  </section>
</template>
