import { defineStore } from 'pinia'
import { ref } from 'vue'

export type Notice = { id: number; kind: 'info' | 'error'; text: string; detail?: string; action?: { label: string; run: () => void } }

/** Short messages at the foot of the page, some with one thing to do about it. */
export const useNotices = defineStore('notices', () => {
  const notices = ref<Notice[]>([])
  let next = 1

  function show(notice: Omit<Notice, 'id'>, seconds = notice.kind === 'error' ? 0 : notice.action ? 10 : 4) {
    const id = next++
    // The same trouble twice is one message.
    notices.value = [...notices.value.filter((n) => n.text !== notice.text).slice(-2), { ...notice, id }]
    if (seconds) setTimeout(() => dismiss(id), seconds * 1000)
    return id
  }

  function dismiss(id: number) {
    notices.value = notices.value.filter((n) => n.id !== id)
  }

  return { notices, show, dismiss }
})
