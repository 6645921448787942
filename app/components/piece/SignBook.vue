<script setup lang="ts">
/** Every sign with its causes, mends and questions; whoever plans may grade how often an answer is yes. */
import { type Grade, GRADES, GROUPS, MENDS, type Sign, SIGNS } from '#core/diagnose'

const props = defineProps<{ grades: AnswerOf<'GET /api/faults'>['grades']; open: string }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const gradeOf = (sign: Sign, ask: string, cause: string): Grade =>
  props.grades.find(g => g.sign === sign.slug && g.ask === ask && g.cause === cause)?.grade ??
  sign.asks[ask]!.yes[cause] ??
  'half'
const options = GRADES.map(value => ({ value, label: w(`fault.grades.${value}`) }))
async function grade(sign: Sign, ask: string, cause: string, own: Grade) {
  if (await send('PUT /api/faults/grades', { body: { sign: sign.slug, ask, cause, grade: own } })) emit('changed')
}
</script>

<template>
  <section class="mt-8" data-test="book">
    <h2>{{ w('fault.book') }}</h2>
    <div v-for="group in GROUPS" :key="group" class="mt-3">
      <h3>{{ w(`fault.group.${group}`) }}</h3>
      <FoldOut
        v-for="s in SIGNS.filter(x => x.group === group)"
        :key="s.slug"
        :title="s.name"
        :open="s.slug === open"
        :data-sign="s.slug"
      >
        <div class="pl-6 grid gap-3 pb-4">
          <p class="verdict">{{ w('fault.atOnce', { says: s.now }) }}</p>
          <p v-for="(c, slug) in s.causes" :key="slug">
            <strong>{{ c.says }}.</strong> {{ w('fault.mend', { says: MENDS[c.mend].says }) }}.
            <span class="caption">{{ w('fault.next', { says: c.next }) }}</span>
          </p>
          <FoldOut :title="w('fault.asks')">
            <div v-for="(a, ask) in s.asks" :key="ask" class="row">
              <p class="font-bold">{{ a.asks }}</p>
              <div class="grid sm:grid-cols-2 gap-x-6 gap-y-2 mt-1">
                <ChoiceField
                  v-for="(c, slug) in s.causes"
                  :key="slug"
                  :model-value="gradeOf(s, ask, slug)"
                  :label="w('fault.grade', { cause: c.says })"
                  :options="options"
                  :disabled="!session.may('plan')"
                  @update:model-value="grade(s, ask, slug, $event as Grade)"
                />
              </div>
            </div>
          </FoldOut>
        </div>
      </FoldOut>
    </div>
  </section>
</template>
