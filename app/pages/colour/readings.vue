<script setup lang="ts">
import { SPECIES } from '#core/wood'

const light = useLight()
const session = useSession()
const { dayTime } = useFormat()
const { data: page, load } = useLive('GET /api/colour', topic => topic !== 'air')
async function withdraw(id: number) {
  if (await send('DELETE /api/readings/:id', { id })) await load()
}
</script>

<template>
  <div>
    <ColourNav />
    <div class="grid lg:grid-cols-[1fr_24rem] gap-10">
      <section>
        <div class="flex flex-wrap items-center gap-4 mb-3">
          <h1>{{ w('colour.nav.readings') }}</h1>
          <a class="underline min-h-11 inline-flex items-center" href="/api/readings/export?format=cgats">CGATS</a
          ><a class="underline min-h-11 inline-flex items-center" href="/api/readings/export?format=csv">CSV</a>
        </div>
        <div class="mb-4"><LightChoice /></div>
        <p v-if="page && !page.readings.length" class="row">{{ w('colour.noReading') }}</p>
        <div
          v-for="r in page?.readings ?? []"
          :key="r.id"
          class="row flex flex-wrap items-center gap-x-4 gap-y-1"
          data-test="reading"
        >
          <span class="bg-[#777777] p-1.5" aria-hidden="true"
            ><span class="block w-14 h-10" :style="{ background: swatch(r.spectrum, light) }"
          /></span>
          <span class="grow basis-56"
            ><strong>{{ r.name }}</strong
            ><span class="caption block"
              >{{ w(`colour.roles.${r.role}`) }} · {{ SPECIES.find(s => s.slug === r.species)?.name
              }}{{ r.zone === 'sapwood' ? `, ${w('colour.zones.sapwood')}` : '' }} ·
              {{ r.clear_coat ? w(`colour.coats.${r.clear_coat}`) : w('colour.bare') }} ·
              {{ w(`colour.histories.${r.light_history}`) }}{{ r.piece ? ` · ${r.piece}` : '' }}</span
            ><span v-if="r.given" class="caption text-ochre block">{{ w('colour.fromLab') }}</span></span
          >
          <span class="clock"
            >L*a*b* {{ r.lab.map(v => v.toFixed(1)).join(' · ')
            }}<span class="caption block"
              >{{ w(`colour.sources.${r.source}`) }}, {{ r.by_name }}, {{ dayTime(r.at) }}</span
            ></span
          >
          <button
            v-if="session.may('mix')"
            class="underline min-h-11 px-2"
            :aria-label="`${w('remove')}: ${r.name}`"
            @click="withdraw(r.id)"
          >
            {{ w('remove') }}
          </button>
        </div>
      </section>
      <aside v-if="session.may('mix')">
        <h2 class="mb-3">{{ w('colour.newReading') }}</h2>
        <MeasureForm @read="load" />
      </aside>
    </div>
  </div>
</template>
