import { defineStore } from 'pinia'

const STAYS_MS = { done: 6000, stop: 20_000 }
interface Note {
  says: string
  kind: 'done' | 'stop'
  /** takes back what was done */
  back?: () => Promise<unknown>
  /** the waiting act that it tells of: once it has gone in, it is told no more */
  of?: string
  /** where it goes on from here */
  on?: { says: string; to: string }
}

/** One line at the foot of the page: what was done, or why it was not. */
export const useNotes = defineStore('notes', () => {
  const note = ref<Note | null>(null)
  let timer: ReturnType<typeof setTimeout> | undefined
  const clear = () => {
    note.value = null
  }
  function show(says: string, kind: Note['kind'] = 'done', back?: Note['back'], of?: string) {
    note.value = { says, kind, back, of }
    clearTimeout(timer)
    timer = setTimeout(clear, STAYS_MS[back ? 'stop' : kind])
  }
  /** What was told last leads on to a page. */
  const leadsOn = (on: Note['on']) => {
    if (note.value) note.value = { ...note.value, on }
  }
  const wentIn = (uuid: string) => {
    if (note.value?.of === uuid) clear()
  }
  async function takeBack() {
    const back = note.value?.back
    clear()
    await back?.()
  }
  return { note, show, leadsOn, clear, wentIn, takeBack }
})
