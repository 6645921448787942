<script setup lang="ts">
/** How old the newest backup is, and letters that a restore holds back. */
const props = defineProps<{
  shop: { mail_held: 0 | 1; backup: { last: { at: string; bytes: number; second: boolean } | null; old: boolean } }
}>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const { dayTime } = useFormat()
const last = computed(() => props.shop.backup.last)
async function release() {
  await send('POST', '/api/mails/release', {})
  emit('changed')
}
</script>

<template>
  <section data-test="backup">
    <h2>{{ $t('shop.backup') }}</h2>
    <p v-if="last">
      {{
        $t('shop.backupAt', {
          at: dayTime(last.at),
          size: Math.max(0.1, last.bytes / 1e6).toFixed(1),
          second: last.second ? $t('shop.backupSecond') : '',
        })
      }}
    </p>
    <p v-else>{{ $t(session.mode === 'shop' ? 'shop.backupNone' : 'shop.backupDemo') }}</p>
    <p v-if="shop.backup.old" class="verdict verdict-stop" role="alert">{{ $t('shop.backupOld') }}</p>
    <p v-if="shop.mail_held" class="verdict verdict-stop flex flex-wrap gap-3 items-center" role="alert">
      <span class="grow">{{ $t('shop.held') }}</span>
      <button v-if="session.may('owner')" class="act act-quiet" @click="release">{{ $t('shop.release') }}</button>
    </p>
  </section>
</template>
