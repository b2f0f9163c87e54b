import { useEventListener } from '@vueuse/core'
import { onBeforeUnmount, onMounted } from 'vue'

/** Nothing heard for so long means that nobody is there: signs of life come every four seconds. */
const silence = 11_000
/** A browser that was refused does not ask again by itself. */
const again = 5_000

/**
 * Listens to the numbers that an address sends, as long as the view is there and seen: a browser has few connections to one host, and many
 * windows may be open. A silent or broken connection is told and begun anew; the first number after that tells what was missed.
 */
export function useNews(address: string, heard: (number: number) => void, lost: () => void) {
  let events: EventSource | undefined
  let timer: ReturnType<typeof setTimeout> | undefined

  function expect(milliseconds: number) {
    clearTimeout(timer)
    timer = setTimeout(listen, milliseconds)
  }

  function listen() {
    // Whoever has to begin anew has heard nothing.
    if (events) lost()
    events?.close()
    events = new EventSource(address)
    events.onmessage = (message) => {
      expect(silence)
      heard(Number(message.data))
    }
    events.onerror = () => {
      lost()
      expect(again)
    }
    expect(silence)
  }

  function rest() {
    clearTimeout(timer)
    events?.close()
    events = undefined
  }

  onMounted(listen)
  useEventListener(document, 'visibilitychange', () => (document.hidden ? rest() : listen()))
  onBeforeUnmount(rest)
}
