<script setup lang="ts">
import { wentHome } from '#core/piece'

const route = useRoute()
const { page } = inject(PIECE)!
const { dayTime } = useFormat()
const id = computed(() => Number(route.params.id))
const sending = ref<{ done: number; of: number } | null>(null)
const pairing = ref<string | null>(null)
async function add(event: Event, load: () => Promise<void>) {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  const failed: string[] = []
  for (const [i, file] of files.entries()) {
    sending.value = { done: i, of: files.length }
    const form = new FormData()
    form.append('picture', file)
    if (!(await send('POST /api/pieces/:id/photographs', { id: id.value, body: form }))) failed.push(file.name)
  }
  sending.value = null
  input.value = ''
  if (failed.length) useNotes().show(w('photo.notTaken', { names: failed.join(', ') }), 'stop')
  await load()
}
async function change(exam: Examination, address: string, what: Record<string, unknown>, load: () => Promise<void>) {
  const rowVersion = exam.photographs.find(p => p.address === address)!.row_version
  if (await send('PATCH /api/photographs/:address', { address, body: { rowVersion, ...what } })) pairing.value = null
  await load()
}
const linked = (exam: Examination, address: string) => exam.findings.filter(f => f.photographs.includes(address))
</script>

<template>
  <ExaminePage v-slot="{ exam, load, can }">
    <label v-if="!wentHome(page!.piece.state)" class="act cursor-pointer"
      >{{ w('examine.addPhotograph')
      }}<input
        type="file"
        class="sr-only"
        accept="image/jpeg,image/png,image/webp"
        multiple
        @change="add($event, load)"
    /></label>
    <span v-if="sending" class="ml-3 clock" role="status">{{
      w('photo.sending', { n: sending.done + 1, of: sending.of })
    }}</span>
    <div v-if="exam.photographs.some(p => p.before_address)" class="grid sm:grid-cols-2 gap-6 mt-5">
      <BeforeAfter
        v-for="p in exam.photographs.filter(x => x.before_address)"
        :key="p.address"
        :before="p.before_address!"
        :after="p.address"
        :caption="p.caption"
      />
    </div>
    <p v-if="pairing" class="verdict mt-4">
      {{ w('photo.pickBefore') }} <button class="act act-quiet" @click="pairing = null">{{ w('cancel') }}</button>
    </p>
    <div class="grid grid-cols-1 sm:grid-cols-2 lg:grid-cols-3 gap-5 mt-5">
      <figure v-for="p in exam.photographs" :key="p.address" data-test="photograph">
        <a :href="`/api/photographs/${p.address}`" target="_blank"
          ><img
            :src="`/api/photographs/${p.address}?size=thumb`"
            class="w-full aspect-4/3 object-contain bg-line"
            :alt="p.caption || w('examine.photograph')"
        /></a>
        <figcaption>
          <input
            class="field mt-1"
            :value="p.caption"
            :disabled="!can"
            maxlength="200"
            :placeholder="w('photo.name')"
            :aria-label="w('photo.name')"
            @change="change(exam, p.address, { caption: ($event.target as HTMLInputElement).value }, load)"
          />
          <span class="caption"
            >{{ p.taken_at ? dayTime(p.taken_at) : dayTime(p.added_at) }} · {{ p.width }} × {{ p.height }}</span
          >
          <NuxtLink
            v-for="f in linked(exam, p.address)"
            :key="f.id"
            :to="`/pieces/${id}?face=${f.faceId}&finding=${f.id}`"
            class="block"
            >{{ f.number }} {{ w(`finding.${f.kind}`) }}</NuxtLink
          >
          <SwitchField
            v-if="can"
            :model-value="Boolean(p.released)"
            :label="w('photo.released')"
            @update:model-value="change(exam, p.address, { released: Boolean($event) }, load)"
          />
          <template v-if="can && exam.photographs.length > 1">
            <button
              v-if="pairing && pairing !== p.address"
              class="act w-full mt-1"
              @click="change(exam, pairing, { before: p.address }, load)"
            >
              {{ w('photo.isBefore') }}
            </button>
            <button
              v-else-if="p.before_address"
              class="act act-quiet w-full mt-1"
              @click="change(exam, p.address, { before: null }, load)"
            >
              {{ w('photo.part') }}
            </button>
            <button v-else-if="!pairing" class="act act-quiet w-full mt-1" @click="pairing = p.address">
              {{ w('photo.pair') }}
            </button>
          </template>
        </figcaption>
      </figure>
    </div>
    <p v-if="!exam.photographs.length" class="mt-4">{{ w('photo.none') }}</p>
  </ExaminePage>
</template>
