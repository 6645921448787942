<script setup lang="ts">
/** Stepping up to a tablet of the shop while there is no line: by a name alone, and it says so. */
const props = defineProps<{ who: { id: number; name: string; bench: boolean } }>()
const emit = defineEmits<{ inside: []; back: [] }>()
const session = useSession()
function enter() {
  session.stepUp(props.who.id)
  emit('inside')
}
</script>

<template>
  <div class="grid gap-3 max-w-sm" data-test="by-name-only">
    <p class="text-2xl font-semibold">{{ who.name }}</p>
    <p>{{ w(who.bench ? 'byName.why' : 'byName.notBench') }}</p>
    <button v-if="who.bench" class="act !min-h-16" @click="enter">{{ w('byName.in') }}</button>
    <button class="underline min-h-11 justify-self-start" @click="emit('back')">{{ w('door.another') }}</button>
  </div>
</template>
