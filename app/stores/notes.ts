import { defineStore } from 'pinia'

/** One line at the foot of the page: what was done, or why it was not. */
export const useNotes = defineStore('notes', () => {
  const note = ref<{ says: string; kind: 'done' | 'stop' } | null>(null)
  let timer: ReturnType<typeof setTimeout> | undefined
  function show(says: string, kind: 'done' | 'stop' = 'done') {
    note.value = { says, kind }
    clearTimeout(timer)
    timer = setTimeout(
      () => {
        note.value = null
      },
      kind === 'stop' ? 20_000 : 6000,
    )
  }
  return {
    note,
    show,
    clear: () => {
      note.value = null
    },
  }
})
