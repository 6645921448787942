<script setup lang="ts">
import { gritName } from '#core/abrasives'

/** Hands left, film, dates, price and veneer of a plan, each with where it comes from. */
const props = defineProps<{ plan: PlanPage }>()
const session = useSession()
const { hours, money, day } = useFormat()
const { page } = inject(PIECE)!
/** As it goes it will cost more than was agreed, or than the worst that was accepted. */
const dearer = computed(() => {
  const { cost, agreed_minor, acceptedWorst_minor } = props.plan
  if (agreed_minor === null || !session.may('see-prices') || !(cost.foreseen_minor > agreed_minor)) return null
  return cost.foreseen_minor > (acceptedWorst_minor ?? agreed_minor) ? ('worst' as const) : ('likely' as const)
})
const outlook = computed(() => page.value?.outlook)
</script>

<template>
  <div class="grid gap-5">
    <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2 clock [&>dd]:text-right [&>dd]:font-bold">
      <dt>{{ w('plan.handsLeft') }}</dt>
      <dd>{{ hours(plan.left_min) }}</dd>
      <dt>{{ w('plan.film') }}</dt>
      <dd data-test="film">{{ Math.round(plan.film_um) }} µm</dd>
      <dt>{{ w('plan.ready') }}</dt>
      <dd>
        {{ plan.dates.readyLikely_ms ? day(plan.dates.readyLikely_ms) : ''
        }}<span v-if="plan.dates.readySafe_ms" class="caption block font-normal"
          >{{ w('plan.safe') }} {{ day(plan.dates.readySafe_ms) }}</span
        >
      </dd>
      <template v-if="outlook?.likely_at">
        <dt>{{ w('plan.withAll') }}</dt>
        <dd data-test="with-all">
          {{ day(outlook.likely_at)
          }}<span v-if="outlook.safe_at" class="caption block font-normal"
            >{{ w('plan.safe') }} {{ day(outlook.safe_at) }}</span
          >
        </dd>
      </template>
      <template v-if="session.may('see-prices')">
        <dt>{{ w('plan.cost') }}</dt>
        <dd data-test="cost">
          {{ money(plan.cost.soFar_minor)
          }}<span class="caption block font-normal">{{
            plan.agreed_minor === null
              ? w('plan.notAgreed')
              : w('plan.agreed', { sum: money(plan.agreed_minor), worst: money(plan.acceptedWorst_minor!) })
          }}</span>
        </dd>
        <dt>{{ w('plan.planned') }}</dt>
        <dd>
          {{ money(plan.cost.planned_minor)
          }}<span v-for="e in plan.extras" :key="e.says" class="caption block font-normal" data-test="extra">{{
            w('plan.extra', { what: e.says, sum: money(e.price_minor) })
          }}</span>
        </dd>
      </template>
      <template v-if="dearer">
        <dt>{{ w('plan.foreseen') }}</dt>
        <dd data-test="foreseen" :class="dearer === 'worst' ? 'text-madder' : 'text-ochre'">
          {{ money(plan.cost.foreseen_minor)
          }}<NuxtLink class="block font-normal min-h-11" :to="`/pieces/${page!.piece.id}/client`">{{
            w(`plan.beyond.${dearer}`)
          }}</NuxtLink>
        </dd>
      </template>
      <template v-if="plan.expected">
        <dt>{{ w('plan.expected') }}</dt>
        <dd data-test="expected">
          {{ session.may('see-prices') ? money(plan.expected.total_minor) : ''
          }}<span class="caption block font-normal">{{ day(plan.expected.ready_ms) }}</span>
        </dd>
      </template>
    </dl>
    <section v-for="b in plan.budgets" :key="b.species">
      <h3>
        {{ w('plan.veneer', { species: b.species, mm: (b.thickness_um / 1000).toFixed(1) }) }}
        <strong :class="b.verdict === 'fine' ? 'text-moss' : b.verdict === 'by-hand' ? 'text-ochre' : 'text-madder'">{{
          w(`veneer.${b.verdict}`)
        }}</strong>
      </h3>
      <div v-for="(r, i) in b.rows" :key="i" class="grid grid-cols-[4rem_1fr_4rem] gap-2 items-center caption clock">
        <span>{{ gritName(r.grit) }}</span><svg
          viewBox="0 0 100 8"
          class="h-3 w-full"
          preserveAspectRatio="none"
          aria-hidden="true"
        >
          <rect
            :width="Math.min(100, (100 * r.takes_um) / (b.thickness_um - b.reserve_um))"
            height="8"
            fill="var(--color-slate)"
          /></svg
        ><span class="text-right">{{ Math.round(r.takes_um) }} µm</span>
      </div>
      <p class="caption clock">
        {{
          w('plan.veneerSum', {
            takes: Math.round(b.takes_um),
            worst: Math.round(b.worst_um),
            spare: Math.round(b.thickness_um - b.reserve_um),
            reserve: b.reserve_um,
          })
        }}
      </p>
    </section>
    <WhyNote :label="w('plan.whence')">{{ w('plan.source') }}</WhyNote>
  </div>
</template>
