import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { createApp } from '@/testing/pageless'
import { useNews } from './useNews'

class Connection {
  static all: Connection[] = []
  onmessage?: (message: { data: string }) => void
  onerror?: () => void
  isOpen = true
  constructor(readonly address: string) {
    Connection.all.push(this)
  }
  close() {
    this.isOpen = false
  }
}
const open = () => Connection.all.filter((c) => c.isOpen)

let page: EventTarget & { hidden: boolean }
let heard: number[]
let lost: number
let view: ReturnType<typeof createApp>

function show(isShown: boolean) {
  page.hidden = !isShown
  page.dispatchEvent(new Event('visibilitychange'))
}

beforeEach(() => {
  vi.useFakeTimers()
  page = Object.assign(new EventTarget(), { hidden: false })
  vi.stubGlobal('document', page)
  vi.stubGlobal('EventSource', Connection)
  Connection.all = []
  heard = []
  lost = 0
  view = createApp({
    setup: () => {
      useNews(
        '/news',
        (n) => heard.push(n),
        () => lost++,
      )
      return () => null
    },
  })
  view.mount({})
})
afterEach(() => {
  view.unmount()
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

it('hears the numbers that are sent', () => {
  open()[0]!.onmessage!({ data: '7' })
  expect(heard).toEqual([7])
  expect(lost).toBe(0)
})

it('tells a silent connection and begins anew', () => {
  vi.advanceTimersByTime(11_001)
  expect(lost).toBe(1)
  expect(Connection.all).toHaveLength(2)
  expect(open()).toHaveLength(1)
})

it('holds no connection while its window is hidden, and misses nothing of it', () => {
  show(false)
  expect(open()).toHaveLength(0)
  vi.advanceTimersByTime(60_000)
  expect(open()).toHaveLength(0)
  expect(lost).toBe(0)
  show(true)
  expect(open()).toHaveLength(1)
  expect(lost).toBe(0)
})

it('ends with its view', () => {
  view.unmount()
  expect(open()).toHaveLength(0)
  vi.advanceTimersByTime(60_000)
  expect(open()).toHaveLength(0)
})
