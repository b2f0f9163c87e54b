import { nextTick } from 'vue'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { createApp } from '@/testing/pageless'
import { usePagedList, type ListPage, type ListQuery } from './usePagedList'

type Answer = { data?: ListPage<string>; error?: unknown; response: Response }
let asked: { query: ListQuery; answer: (a: Answer) => void }[]

function mounted(sort = '') {
  let list!: ReturnType<typeof usePagedList<string>>
  createApp({
    setup() {
      list = usePagedList<string>((query) => new Promise<Answer>((answer) => asked.push({ query, answer })), sort)
      return () => null
    },
  }).mount({})
  return list
}

const page = (...items: string[]): Answer => ({ data: { total: 60, items }, response: new Response() })
const settled = () => vi.advanceTimersByTimeAsync(0)

beforeEach(() => {
  vi.useFakeTimers()
  asked = []
})

afterEach(() => vi.useRealTimers())

it('asks for the first page when the view opens', async () => {
  const list = mounted('tag')
  expect(asked.map((a) => a.query)).toEqual([
    { search: undefined, sort: 'tag', descending: undefined, skip: 0, take: 25 },
  ])
  expect(list.loading.value).toBe(true)
  asked[0]!.answer(page('CH-110'))
  await settled()
  expect(list.page.value!.items).toEqual(['CH-110'])
  expect(list.loading.value).toBe(false)
})

it('does not show an answer that a newer question has overtaken', async () => {
  const list = mounted()
  list.turn(25)
  asked[1]!.answer(page('second page'))
  await settled()
  asked[0]!.answer(page('first page, late'))
  await settled()
  expect(list.page.value!.items).toEqual(['second page'])
  expect(list.loading.value).toBe(false)
})

it('does not complain about a question that was overtaken', async () => {
  const list = mounted()
  list.turn(25)
  asked[1]!.answer(page('second page'))
  asked[0]!.answer({ error: { detail: 'no' }, response: new Response(null, { status: 500 }) })
  await settled()
  expect(list.problem.value).toBe('')
})

it('asks once for what was typed, and from the first page', async () => {
  const list = mounted()
  list.turn(50)
  for (const typed of ['c', 'ch', ' ch-1 ']) {
    list.search.value = typed
    await nextTick()
    await vi.advanceTimersByTimeAsync(50)
  }
  await vi.advanceTimersByTimeAsync(400)
  expect(asked.length).toBe(3)
  expect(asked[2]!.query).toMatchObject({ search: 'ch-1', skip: 0 })
})

it('begins at the first page again when it is sorted otherwise', async () => {
  const list = mounted()
  list.turn(50)
  list.sortBy('jobs', true)
  expect(asked[2]!.query).toMatchObject({ sort: 'jobs', descending: true, skip: 0 })
})

it('keeps what is shown when the next page cannot be had, and says why', async () => {
  const list = mounted()
  asked[0]!.answer(page('first page'))
  await settled()
  list.turn(25)
  asked[1]!.answer({ error: { detail: 'The service is not there.' }, response: new Response(null, { status: 503 }) })
  await settled()
  expect(list.page.value!.items).toEqual(['first page'])
  expect(list.problem.value).toContain('The service is not there.')
})
