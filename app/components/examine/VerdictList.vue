<script setup lang="ts">
import { blocks } from '#core/safety'

/** Verdicts with their reasons; each can be overruled with a word, by whom its class allows. */
const props = defineProps<{ verdicts: ExamVerdict[]; id: number; can: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const words = ref<Record<string, string>>({})
const keyOf = (v: ExamVerdict) => `${v.slug}|${v.subject}`
async function overrule(v: ExamVerdict) {
  if (
    await send('POST /api/pieces/:id/examination/overrules', {
      id: props.id,
      body: {
        slug: v.slug,
        subject: v.subject,
        word: words.value[keyOf(v)] ?? '',
      },
    })
  )
    emit('changed')
}
</script>

<template>
  <div>
    <FoldOut
      v-for="v in verdicts"
      :key="keyOf(v)"
      class="verdict mt-2"
      :class="blocks(v, Boolean(v.overruled)) ? 'verdict-stop' : ''"
      data-test="verdict"
      :data-slug="v.slug"
      ><template #title
        ><strong
          :class="
            v.overruled ? 'text-soft' : blocks(v) ? 'text-madder' : v.severity === 'warn' ? 'text-ochre' : 'text-soft'
          "
          >{{ w(`severity.${v.severity}`) }}:</strong
        >{{ ' ' }} <span :class="v.overruled ? 'line-through' : ''">{{ v.says }}</span></template
      >
      <p v-for="r in v.reasons" :key="r">{{ r }}</p>
      <p class="mt-1">
        <strong>{{ w('exam.do') }}</strong> {{ v.mend }}
      </p>
      <p class="caption">{{ v.source }}</p>
      <p v-if="v.overruled" class="mt-1">{{ w('plan.overruled', { by: v.overruled.by }) }}: {{ v.overruled.word }}</p>
      <form
        v-else-if="can && v.mayOverrule && v.severity !== 'note'"
        class="flex flex-wrap gap-2 mt-2"
        @submit.prevent="overrule(v)"
      >
        <input
          v-model="words[keyOf(v)]"
          class="field !w-56 grow"
          required
          maxlength="500"
          :aria-label="w('plan.word')"
          :placeholder="w('plan.word')"
        /><button class="act act-quiet">{{ w('plan.overrule') }}</button>
      </form>
      <p v-else-if="v.severity === 'forbidden'" class="caption mt-1">
        {{ w('exam.onlyEvidence') }}
        <NuxtLink v-if="session.person" :to="`/pieces/${id}/hazards`">{{ w('exam.hazards') }}</NuxtLink>
      </p>
    </FoldOut>
  </div>
</template>
