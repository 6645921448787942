<script setup lang="ts">
/** What a piece that is asked about will take: hours, price, the earliest honest day, and what would change it. */
const { page, load } = inject(PIECE)!
const id = computed(() => page.value!.piece.id)
const { hours, money, day } = useFormat()
const { data: its, failed } = useLive(
  'GET /api/pieces/:id/estimate',
  (topic, piece) => topic === 'piece' && piece === id.value,
  () => ({ id: id.value }),
)
// its days stand on the piece then, for whoever asks about one
watch(its, () => load())
const signed = (n: number, says: (x: number) => string) => `${n < 0 ? '−' : '+'}${says(Math.abs(n))}`
</script>

<template>
  <div class="max-w-3xl" data-test="estimate">
    <PageState v-if="!its" :failed="failed" />
    <p v-else-if="!its.ready" class="row">{{ w('pieces.noRoute') }}</p>
    <template v-else>
      <dl class="grid sm:grid-cols-[auto_1fr] gap-x-8 gap-y-3 text-lg">
        <dt>{{ w('enquiry.hours') }}</dt>
        <dd class="font-bold clock" data-test="hours">
          {{ w('enquiry.range', { from: hours(its.likely_min), to: hours(its.worst_min) }) }}
        </dd>
        <dt>{{ w('enquiry.price') }}</dt>
        <dd class="font-bold clock" data-test="price">
          {{ w('enquiry.range', { from: money(its.likely_minor), to: money(its.worst_minor) }) }}
        </dd>
        <dt>{{ w('enquiry.earliest') }}</dt>
        <dd>
          <strong v-if="its.earliest?.safe" class="clock" data-test="earliest">{{ day(its.earliest.safe) }}</strong>
          <span class="caption block">{{
            its.earliest?.safe
              ? w('enquiry.earliestWhy', { likely: day(its.earliest.likely ?? its.earliest.safe) })
              : w('enquiry.noDay')
          }}</span>
        </dd>
      </dl>
      <section class="mt-6">
        <h2>{{ w('enquiry.changes') }}</h2>
        <p v-for="d in its.doubts" :key="d.says" class="row" data-test="doubt">
          {{
            d.out
              ? w('enquiry.out', { says: d.says })
              : w('enquiry.change', {
                  says: d.says,
                  hours: signed(d.hours_min, hours),
                  sum: signed(d.price_minor, x => money(x)),
                })
          }}
        </p>
        <p v-if="!its.doubts.length" class="row">{{ w('enquiry.sure') }}</p>
      </section>
      <p class="caption mt-4">{{ w('enquiry.measure') }}</p>
      <NuxtLink class="act no-underline mt-4" :to="`/pieces/${id}/client`">{{ w('enquiry.quote') }}</NuxtLink>
    </template>
  </div>
</template>
