<script setup lang="ts">
/** Two routes beside each other. */
defineProps<{ verdicts: RoutesPage['verdicts'] }>()
const session = useSession()
const { hours, money, percent, day } = useFormat()
</script>

<template>
  <table class="w-full table-fixed text-left mt-4 bg-sheet" data-test="compared">
    <thead>
      <tr>
        <th class="p-2 w-48" />
        <th v-for="v in verdicts" :key="v.route" class="p-2 text-lg">{{ w(`route.${v.route}`) }}</th>
      </tr>
    </thead>
    <tbody class="[&_td]:p-2 [&_td]:align-top [&_tr]:border-t [&_tr]:border-line">
      <tr>
        <td class="caption">{{ w('route.standing') }}</td>
        <td v-for="v in verdicts" :key="v.route">
          <strong :class="STANDING_COLOUR[v.standing]"
            >{{ STANDING_MARK[v.standing] }} {{ w(`standing.${v.standing}`) }}</strong
          >
        </td>
      </tr>
      <tr>
        <td class="caption">{{ w('route.hands') }}</td>
        <td v-for="v in verdicts" :key="v.route" class="clock">
          {{ hours(v.likely.attended_min) }}, {{ w('route.expected') }} {{ hours(v.expected.attended_min) }},
          {{ w('worst') }} {{ hours(v.worst.attended_min) }}
        </td>
      </tr>
      <tr>
        <td class="caption">{{ w('route.ready') }}</td>
        <td v-for="v in verdicts" :key="v.route" class="clock">
          {{ day(v.readyLikely_ms) }}, {{ w('worst') }} {{ day(v.readyWorst_ms) }}
        </td>
      </tr>
      <tr v-if="session.may('see-prices')">
        <td class="caption">{{ w('route.price') }}</td>
        <td v-for="v in verdicts" :key="v.route" class="clock font-bold">
          {{ money(v.likely.total_minor) }}, {{ w('route.expected') }} {{ money(v.expected.total_minor) }},
          {{ w('worst') }} {{ money(v.worst.total_minor) }}
        </td>
      </tr>
      <tr>
        <td class="caption">{{ w('route.gates') }}</td>
        <td v-for="v in verdicts" :key="v.route">
          <span v-for="g in v.gates" :key="g.look" class="block">{{ percent(g.chance) }}: {{ g.fails }}</span
          ><template v-if="!v.gates.length">–</template>
        </td>
      </tr>
      <tr>
        <td class="caption">{{ w('route.back') }}</td>
        <td v-for="v in verdicts" :key="v.route">{{ w(`route.reversible.${v.reversible}`) }}</td>
      </tr>
      <tr>
        <td class="caption">{{ w('route.patina') }}</td>
        <td v-for="v in verdicts" :key="v.route">{{ w(`route.patinas.${v.patina}`) }}</td>
      </tr>
      <tr>
        <td class="caption">{{ w('route.film') }}</td>
        <td v-for="v in verdicts" :key="v.route" class="clock">{{ Math.round(v.film_um) }} µm</td>
      </tr>
      <tr>
        <td class="caption">{{ w('route.cautions') }}</td>
        <td v-for="v in verdicts" :key="v.route">{{ v.hazards.map(h => w(`caution.${h}`)).join(', ') || '–' }}</td>
      </tr>
      <tr>
        <td class="caption">{{ w('route.why') }}</td>
        <td v-for="v in verdicts" :key="v.route">
          <span v-for="r in v.reasons" :key="r.says" class="block">{{ r.says }}</span>
        </td>
      </tr>
    </tbody>
  </table>
</template>
