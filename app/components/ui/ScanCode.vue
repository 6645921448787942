<script setup lang="ts">
import { BarcodeDetector, prepareZXingModule } from 'barcode-detector/ponyfill'
import reader from 'zxing-wasm/reader/zxing_reader.wasm?url'

/** The camera's picture until a label's code is in it. */
const emit = defineEmits<{ read: [text: string] }>()
const LOOK_MS = 200
// the reader's code comes from this shop, never from elsewhere
prepareZXingModule({ overrides: { locateFile: () => reader } })
const detector = new BarcodeDetector({ formats: ['qr_code'] })
const video = useTemplateRef<HTMLVideoElement>('video')
const why = ref<'insecure' | 'none' | 'refused' | null>(null)
const { stream, start, stop } = useUserMedia({ constraints: { video: { facingMode: 'environment' } } })
watch([stream, video], ([live, shown]) => {
  if (shown) shown.srcObject = live ?? null
})
onMounted(async () => {
  if (!isSecureContext || !navigator.mediaDevices) return (why.value = 'insecure')
  try {
    await start()
  } catch (error) {
    why.value = (error as Error).name === 'NotAllowedError' ? 'refused' : 'none'
  }
})
onUnmounted(stop)
let looking = false
const { pause } = useIntervalFn(async () => {
  const picture = video.value
  if (looking || !picture || picture.readyState < HTMLMediaElement.HAVE_CURRENT_DATA) return
  looking = true
  const [found] = await detector.detect(picture).catch(() => [])
  looking = false
  if (!found) return
  pause()
  navigator.vibrate?.(60)
  emit('read', found.rawValue)
}, LOOK_MS)
</script>

<template>
  <p v-if="why" class="row mt-3" role="alert">{{ w(`scan.cannot.${why}`) }}</p>
  <template v-else>
    <video ref="video" class="mt-3 w-full max-h-[50vh] bg-rail" autoplay muted playsinline data-test="camera" />
    <p class="caption mt-1">{{ w('scan.hold') }}</p>
  </template>
</template>
