<script setup lang="ts">
const { time, dayTime } = useFormat()
const clock = useClock()
const session = useSession()
const form = useTemplateRef('form')
/** What is worked out below goes into the mixture above. */
const upTo = () => document.querySelector('[data-test=mix-form]')?.scrollIntoView({ block: 'start' })
const which = ref<'open' | 'all'>('open')
const { data: pots, load } = useLive(
  'GET /api/batches',
  topic => topic !== 'air',
  () => ({ query: { which: which.value } }),
)
const { data: store } = useLive('GET /api/store', topic => topic === 'store')
</script>

<template>
  <div>
    <ColourNav />
    <div class="grid gap-6">
      <section v-if="session.may('mix')" class="min-w-0">
        <h1 class="mb-3">{{ w('mix.title') }}</h1>
        <MixForm ref="form" :products="store?.products ?? []" @made="id => navigateTo(`/mixing/${id}`)" />
      </section>
      <section>
        <div class="flex items-baseline gap-4">
          <h2 class="grow">{{ w('mix.pots') }}</h2>
          <button class="underline min-h-11" @click="which = which === 'open' ? 'all' : 'open'">
            {{ w(which === 'open' ? 'mix.allPots' : 'mix.openPots') }}
          </button>
        </div>
        <p v-if="pots && !pots.length" class="row">{{ w('mix.noPot') }}</p>
        <NuxtLink
          v-for="p in pots ?? []"
          :key="p.id"
          :to="`/mixing/${p.id}`"
          class="row flex flex-wrap items-center gap-x-4 min-h-12 no-underline"
          data-test="pot"
        >
          <strong>{{ p.id }} {{ p.name }}</strong
          ><span class="caption grow">{{ [p.piece, p.place, dayTime(p.at)].filter(Boolean).join(' · ') }}</span>
          <span v-if="p.closed_at" class="caption">{{ w('mix.emptied') }}</span>
          <strong v-else-if="p.potEnds_ms" :class="clock.now > p.potEnds_ms ? 'text-madder' : 'text-ochre'">{{
            clock.now > p.potEnds_ms
              ? w('mix.over', { at: time(p.potEnds_ms) })
              : w('mix.useBy', { at: time(p.potEnds_ms) })
          }}</strong>
          <span v-else-if="p.left_g !== null"
            >{{ w('mix.leftG', { g: p.left_g.toFixed(0) })
            }}<span v-if="p.piece"> · {{ w(p.mayGo ? 'mix.mayGo' : 'mix.keepUntil') }}</span></span
          >
        </NuxtLink>
        <ReadIn v-if="session.may('mix')" class="mt-3" list="pots" @taken="load" />
      </section>
      <div class="grid sm:grid-cols-2 gap-8">
        <ShellacCut
          @take="
            (name, parts) => {
              form?.take(name, parts)
              upTo()
            }
          "
        /><SheenTable
          @take="
            (pct, of) => {
              form?.add({ name: w('mix.flattingBase'), share: pct, of })
              upTo()
            }
          "
        />
      </div>
    </div>
  </div>
</template>
