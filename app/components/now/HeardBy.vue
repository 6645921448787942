<script setup lang="ts">
/** Who has heard an alarm: who is signed in, or on a tablet at which nobody is, a name by a tap. */
const emit = defineEmits<{ heard: [personId?: number] }>()
const session = useSession()
const asks = ref(false)
</script>

<template>
  <button
    v-if="session.person && session.may('work')"
    class="act act-quiet !bg-white !text-[#1c211f]"
    @click="emit('heard')"
  >
    {{ w('alarm.heard', { name: session.person.name }) }}
  </button>
  <template v-else-if="!session.person && session.tablet">
    <button v-if="!asks" class="act act-quiet !bg-white !text-[#1c211f]" @click="asks = true">
      {{ w('alarm.heardWho') }}
    </button>
    <span v-else class="flex flex-wrap gap-2">
      <button
        v-for="p in session.people.filter(x => x.bench)"
        :key="p.id"
        class="act act-quiet !bg-white !text-[#1c211f]"
        @click="emit('heard', p.id)"
      >
        {{ p.name }}
      </button>
    </span>
  </template>
</template>
