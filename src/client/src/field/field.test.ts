import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Asked } from './field.worker'

/** The worker as it is asked: it answers every question with its own words, unless a test says otherwise. */
let asked: Asked[]
let says: (asked: Asked) => string
/** Questions of which the worker dies. */
let kills: (asked: Asked) => boolean
let cached: Map<string, string>
let served: Record<string, unknown>

const circuit = { id: 'c-1', tag: 'WP-301', title: 'Pump' }
const found = {
  circuitId: 'c-1',
  newest: 1,
  versions: [{ number: 1, file: '{}' }],
  jobs: [{ id: 'j-1', circuitId: 'c-1', version: 1, title: 'Hums', openedAt: '2026-03-01T00:00:00Z', entries: [] }],
  history: {},
}

let workers: Asked[][]

class FakeWorker {
  private readonly mine: Asked[] = []
  constructor() {
    workers.push(this.mine)
  }
  onmessage?: (message: { data: unknown }) => void
  onerror?: (event: { message: string }) => void
  terminate() {}
  postMessage(question: Asked) {
    asked.push(question)
    this.mine.push(question)
    queueMicrotask(() =>
      kills(question)
        ? this.onerror?.({ message: 'out of memory' })
        : this.onmessage?.({ data: { id: question.id, text: says(question) } }),
    )
  }
}

/** A page that was just opened: the module afresh, on what the browser keeps. */
async function openPage() {
  vi.resetModules()
  return import('./field')
}

beforeEach(() => {
  asked = []
  workers = []
  cached = new Map()
  kills = () => false
  says = (question) => (question.what === 'answer' ? '200"answered"' : '')
  served = {
    '/field/core.json': { path: '/field/abc/', files: ['dotnet.js', 'core.wasm'] },
    '/api/field/circuits/c-1': found,
    '/api/circuits': { total: 1, items: [{ id: 'c-1', tag: 'WP-301' }] },
  }
  vi.stubGlobal('indexedDB', new IDBFactory())
  vi.stubGlobal('navigator', {})
  vi.stubGlobal('Worker', FakeWorker)
  vi.stubGlobal('caches', {
    open: async () => ({
      match: async (address: string) => cached.get(address),
      add: async (address: string) => void cached.set(address, 'file'),
      keys: async () => [...cached.keys()].map((k) => ({ url: `http://here${k}` })),
      delete: async (request: { url: string }) => cached.delete(new URL(request.url).pathname),
    }),
  })
  vi.stubGlobal('fetch', async (address: string) => {
    const body = served[address.split('?')[0]!]
    if (body === undefined && !address.includes('/c-1/') && !/choices|sums/.test(address))
      return new Response('', { status: 404 })
    return new Response(JSON.stringify(body ?? { of: address }))
  })
})

const get = (path: string) => new Request(`http://here${path}`)

describe('a circuit that was taken along', () => {
  it('is kept with its jobs, the core and what its page shows, and tried on the device at once', async () => {
    const { useField } = await openPage()
    const field = useField()
    await field.takeAlong(circuit)
    expect(field.here.value.map((a) => a.tag)).toEqual(['WP-301'])
    expect([...cached.keys()]).toEqual(['/field/abc/dotnet.js', '/field/abc/core.wasm'])
    expect(asked.map((a) => a.what)).toEqual(['start', 'circuit'])
    expect(field.busy.value).toBe('')
  })

  it('is there after the browser was closed', async () => {
    await (await openPage()).useField().takeAlong(circuit)
    const { inPlace } = await openPage()
    asked = []
    expect(await (await inPlace(get('/api/jobs/j-1/diagnosis')))!.json()).toBe('answered')
    expect(asked.map((a) => a.what)).toEqual(['start', 'circuit', 'answer'])
  })

  it('answers for its page what was fetched, and for the register itself', async () => {
    const { useField, inPlace } = await openPage()
    await useField().takeAlong(circuit)
    says = () => '404{}'
    expect(await (await inPlace(get('/api/circuits/c-1/trends')))!.json()).toEqual({ of: '/api/circuits/c-1/trends' })
    expect(await (await inPlace(get('/api/circuits')))!.json()).toEqual({
      total: 1,
      items: [{ id: 'c-1', tag: 'WP-301' }],
    })
    expect(await (await inPlace(get('/api/follow-ups')))!.json()).toEqual({ total: 0, items: [] })
    expect(await inPlace(get('/api/insight'))).toBeUndefined()
  })

  it('that was left is not answered for any more', async () => {
    const { useField, inPlace } = await openPage()
    await useField().takeAlong(circuit)
    await useField().leave('c-1')
    expect(useField().here.value).toEqual([])
    expect(await inPlace(get('/api/circuits/c-1'))).toBeUndefined()
    expect(await inPlace(get('/api/jobs/j-1/screen'))).toBeUndefined()
  })

  it('brings the new core, and the old one goes', async () => {
    const { useField } = await openPage()
    await useField().takeAlong(circuit)
    served['/field/core.json'] = { path: '/field/def/', files: ['dotnet.js'] }
    await useField().takeAlong(circuit)
    expect([...cached.keys()]).toEqual(['/field/def/dotnet.js'])
  })

  it('is not said to be there when the service has no core or is gone', async () => {
    const { useField } = await openPage()
    delete served['/field/core.json']
    await expect(useField().takeAlong(circuit)).rejects.toThrow('no core')
    expect(useField().here.value).toEqual([])
    expect(useField().busy.value).toBe('')
  })
})

describe('a job on it', () => {
  it('is brought up to date with what waits to be sent before anything is asked', async () => {
    const { useField, inPlace, unsent } = await openPage()
    await useField().takeAlong(circuit)
    unsent.of = (job) => [{ job, entry: { type: 'note', text: 'waits' } as never }]
    await inPlace(get('/api/jobs/j-1/diagnosis?learn=false'))
    const answers = asked.filter((a) => a.what === 'answer')
    expect(answers.map((a) => `${a.method} ${a.target}`)).toEqual([
      'POST /api/jobs/j-1/entries',
      'GET /api/jobs/j-1/diagnosis?learn=false',
    ])
  })

  it('is worked out by another worker when one has died of it, and nobody waits for the dead one', async () => {
    const { useField, inPlace } = await openPage()
    await useField().takeAlong(circuit)
    kills = (question) => question.what === 'answer'
    expect(await inPlace(get('/api/jobs/j-1/diagnosis'))).toBeUndefined()
    kills = () => false
    expect((await inPlace(get('/api/jobs/j-1/diagnosis')))?.status).toBe(200)
    expect(workers.at(-1)!.map((a) => a.what)).toEqual(['start', 'circuit', 'answer'])
  })

  it('is made ready before anybody asks, where its circuit was taken along', async () => {
    const { useField } = await openPage()
    await useField().prepare('j-1', { strategy: 'mostTelling' })
    expect(asked).toEqual([])
    await useField().takeAlong(circuit)
    await useField().prepare('j-1', { strategy: 'mostTelling', words: undefined })
    expect(asked.at(-1)).toMatchObject({ method: 'GET', target: '/api/jobs/j-1/diagnosis?strategy=mostTelling' })
    await useField().prepare('j-of-another-circuit', {})
    expect(asked.at(-1)).toMatchObject({ target: '/api/jobs/j-1/diagnosis?strategy=mostTelling' })
  })

  it('is worked out beside what is answered at a touch, and both know what was recorded', async () => {
    const { useField, inPlace } = await openPage()
    await useField().takeAlong(circuit)
    await inPlace(get('/api/jobs/j-1/diagnosis'))
    await useField().append('j-1', { type: 'note', text: 'heard a click' } as never)
    await inPlace(get('/api/jobs/j-1/screen'))
    const answered = workers.map((mine) =>
      mine.flatMap((a) => (a.what === 'answer' ? [`${a.method} ${a.target}`] : [])),
    )
    expect(answered).toEqual([
      ['POST /api/jobs/j-1/entries', 'GET /api/jobs/j-1/screen'],
      ['GET /api/jobs/j-1/diagnosis', 'POST /api/jobs/j-1/entries'],
    ])
  })

  it('is brought anew once the service has shown it newer', async () => {
    const { useField, inPlace } = await openPage()
    await useField().takeAlong(circuit)
    await inPlace(get('/api/jobs/j-1/screen'))
    await useField().keep({ id: 'j-1', circuitId: 'c-1', circuitVersion: 1, title: 'Hums', entries: [] } as never)
    await inPlace(get('/api/jobs/j-1/screen'))
    expect(asked.filter((a) => a.what === 'job')).toHaveLength(1)
  })

  it('takes an entry or says why not, and nothing where the circuit is not here', async () => {
    const { useField } = await openPage()
    await useField().takeAlong(circuit)
    says = (question) => (question.what === 'answer' ? '422{"detail":"prove it dead first"}' : '')
    expect(await useField().append('j-1', { type: 'note', text: 'x' } as never)).toEqual({
      refused: 'prove it dead first',
    })
    expect(await useField().append('another', { type: 'note', text: 'x' } as never)).toBeUndefined()
  })

  it('can be opened here', async () => {
    const { useField } = await openPage()
    await useField().takeAlong(circuit)
    says = (question) => (question.what === 'answer' ? '201{"id":"j-2"}' : '')
    expect(await useField().open({ id: 'j-2', circuitId: 'c-1', complaint: 'Hums' } as never)).toEqual({
      answer: { id: 'j-2' },
    })
    expect(await useField().open({ id: 'j-3', circuitId: 'c-9', complaint: 'Hums' } as never)).toBeUndefined()
  })

  it('that is written to is never answered for: that is the outbox’s', async () => {
    const { useField, inPlace } = await openPage()
    await useField().takeAlong(circuit)
    const write = new Request('http://here/api/jobs/j-1/entries', { method: 'POST', body: '{}' })
    expect(await inPlace(write)).toBeUndefined()
  })
})

describe('the choice of who works it out', () => {
  it('is kept, and concerns what is worked out and nothing else', async () => {
    await (await openPage()).useField().choose(true)
    const { isFirst, useField } = await openPage()
    useField()
    await vi.waitFor(() => expect(isFirst(get('/api/jobs/j-1/diagnosis'))).toBe(true))
    expect(isFirst(get('/api/jobs/j-1/screen'))).toBe(false)
    expect(isFirst(get('/api/people'))).toBe(false)
  })
})
