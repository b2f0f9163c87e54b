import { useEventListener, useResizeObserver } from '@vueuse/core'
import { nextTick, ref, type Ref, watch } from 'vue'

/** Smaller than this no terminal can be read; larger than this helps nobody. */
const readable = 0.64,
  natural = 1,
  largest = 1.15,
  smallest = 0.4

interface Point {
  x: number
  y: number
  isLead: boolean
}

/**
 * A window on a drawing that goes to what it is asked to show: all of the drawing where that can be read, otherwise the points and what
 * lies between them. Who has chosen a size keeps it. What is `covered` at its lower edge, px, is no place for a point.
 */
export function useViewport(
  frame: Ref<HTMLElement | undefined>,
  shown: () => string[],
  isOn: () => boolean,
  zoom: Ref<number>,
  drawn: () => unknown,
  covered: () => number,
) {
  const chosen = ref(false)
  const points = ref<Point[]>([])
  const content = ref({ width: 1, height: 1 })
  const view = ref({ x: 0, y: 0, width: 1, height: 1 })
  const isWhole = ref(true)

  /** Where an element stands in what is scrolled. */
  function placeOf(element: Element) {
    const at = element.getBoundingClientRect()
    const box = frame.value!.getBoundingClientRect()
    return {
      x: at.left + at.width / 2 - box.left + frame.value!.scrollLeft,
      y: at.top + at.height / 2 - box.top + frame.value!.scrollTop,
    }
  }

  /** The points that are asked about; of one that is drawn on both sheets the place nearest to the one before. */
  function places() {
    const found: { x: number; y: number }[] = []
    for (const terminal of shown()) {
      const all = [...frame.value!.querySelectorAll(`[data-terminal='${CSS.escape(terminal)}']`)].map(placeOf)
      const from = found.at(-1)
      const far = (p: { x: number; y: number }) => (from ? Math.hypot(p.x - from.x, p.y - from.y) : 0)
      const nearest = all.sort((a, b) => far(a) - far(b))[0]
      if (nearest) found.push(nearest)
    }
    return found
  }

  function look() {
    const element = frame.value
    if (!element) return
    view.value = {
      x: element.scrollLeft,
      y: element.scrollTop,
      width: element.clientWidth,
      height: element.clientHeight,
    }
  }

  function survey() {
    const element = frame.value
    if (!element) return
    content.value = { width: element.scrollWidth, height: element.scrollHeight }
    isWhole.value = element.scrollWidth <= element.clientWidth + 4 && element.scrollHeight <= element.clientHeight + 4
    const leads = new Set(shown())
    points.value = isWhole.value
      ? []
      : [...element.querySelectorAll<Element>('[data-terminal]')].map((e) => {
          return { ...placeOf(e), isLead: leads.has(e.getAttribute('data-terminal')!) }
        })
    look()
  }

  /** Size at which all sheets side by side fill the window. */
  function fitting(element: HTMLElement) {
    const sheets = [...element.querySelectorAll<SVGSVGElement>('figure svg.drawing')].map((s) => s.viewBox.baseVal)
    const gap = 12
    const width = sheets.reduce((sum, s) => sum + s.width + gap, 0)
    const height = Math.max(1, ...sheets.map((s) => s.height)) + 40
    return Math.min((element.clientWidth - 8) / Math.max(1, width), (element.clientHeight - 8) / height)
  }

  /** Height in which a point can be seen. */
  const free = (element: HTMLElement) => element.clientHeight - covered()

  async function go() {
    await nextTick()
    const element = frame.value
    if (!element || !isOn() || element.clientWidth === 0) return
    const calm = window.matchMedia('(prefers-reduced-motion: reduce)').matches
    if (!chosen.value) {
      const all = fitting(element)
      zoom.value = all >= readable ? Math.min(all, largest) : natural
      await nextTick()
    }

    const points = places()
    if (points.length) {
      const [left, right] = [Math.min(...points.map((p) => p.x)), Math.max(...points.map((p) => p.x))]
      const [top, bottom] = [Math.min(...points.map((p) => p.y)), Math.max(...points.map((p) => p.y))]
      const room = 130
      const needed = Math.min(element.clientWidth / (right - left + room), free(element) / (bottom - top + room))
      if (!chosen.value && needed < 1) {
        zoom.value = Math.max(smallest, zoom.value * needed)
        await nextTick()
        return centre(places())
      }

      centre(points, calm ? 'instant' : 'smooth')
    }

    survey()
  }

  function centre(points: { x: number; y: number }[], behavior: ScrollBehavior = 'instant') {
    const element = frame.value!
    const middle = (values: number[]) => (Math.min(...values) + Math.max(...values)) / 2
    element.scrollTo({
      left: middle(points.map((p) => p.x)) - element.clientWidth / 2,
      top: middle(points.map((p) => p.y)) - free(element) / 2,
      behavior,
    })
    survey()
  }

  function moveTo(x: number, y: number) {
    frame.value?.scrollTo({ left: x - view.value.width / 2, top: y - view.value.height / 2 })
  }

  watch([() => shown().join(' '), isOn, drawn], go, { immediate: true, flush: 'post' })
  watch(zoom, () => void nextTick(survey))
  useResizeObserver(frame, go)
  useEventListener(frame, 'scroll', look, { passive: true })
  return { chosen, points, content, view, isWhole, go, moveTo }
}
