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
  await send('POST /api/mails/release', { body: {} })
  emit('changed')
}
</script>

<template>
  <section data-test="backup">
    <h2>{{ w('shop.backup') }}</h2>
    <p v-if="last">
      {{
        w('shop.backupAt', {
          at: dayTime(last.at),
          size: Math.max(0.1, last.bytes / 1e6).toFixed(1),
          second: last.second ? w('shop.backupSecond') : '',
        })
      }}
    </p>
    <p v-else>{{ w(session.mode === 'shop' ? 'shop.backupNone' : 'shop.backupDemo') }}</p>
    <p v-if="shop.backup.old" class="verdict verdict-stop" role="alert">{{ w('shop.backupOld') }}</p>
    <p v-if="shop.mail_held" class="verdict verdict-stop flex flex-wrap gap-3 items-center" role="alert">
      <span class="grow">{{ w('shop.held') }}</span>
      <button v-if="session.may('shop')" class="act act-quiet" @click="release">{{ w('shop.release') }}</button>
    </p>
  </section>
</template>
