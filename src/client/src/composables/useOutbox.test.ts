import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Entry } from '@/api/client'

/** Browser storage as the standard describes it: names are own properties, and a full one throws. */
class Storage {
  [name: string]: unknown
  getItem = (name: string) => (Object.hasOwn(this, name) ? (this[name] as string) : null)
  removeItem = (name: string) => void delete this[name]
  setItem = (name: string, text: string) => {
    if (full) throw new DOMException('full', 'QuotaExceededError')
    this[name] = text
  }

  constructor() {
    for (const hidden of ['getItem', 'removeItem', 'setItem'])
      Object.defineProperty(this, hidden, { enumerable: false })
  }
}

let full = false
let storage: Storage
/** What the service answers, one after the other; the last for good. A number is a status, null a connection that fails. */
let answers: (number | null)[]
let posted: { id: string; text: string }[]

const note = (text: string) => ({ type: 'note', text }) as unknown as Entry
const put = () => Object.keys(storage).filter((k) => k.startsWith('fehler.outbox.'))

/** A window of the browser: the module loaded afresh, on the same storage. */
async function openWindow() {
  vi.resetModules()
  return (await import('./useOutbox')).useOutbox('job-1')
}

beforeEach(() => {
  vi.useFakeTimers()
  full = false
  storage = new Storage()
  answers = [201]
  posted = []
  vi.stubGlobal('localStorage', storage)
  // Outside a page an address needs its host.
  vi.stubGlobal(
    'Request',
    class extends Request {
      constructor(address: string, init?: RequestInit) {
        super(new URL(address, 'http://here'), init)
      }
    },
  )
  vi.stubGlobal('fetch', async (request: Request) => {
    posted.push(await request.json())
    const status = answers.length > 1 ? answers.shift()! : answers[0]!
    if (status === null) throw new TypeError('no connection')
    const body = status < 400 ? { sequence: posted.length } : { detail: `answer ${status}` }
    return new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } })
  })
})

afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('an entry', () => {
  it('is let go of once the service has it', async () => {
    const box = await openWindow()
    expect(await box.record(note('a'), 'Note', {})).toEqual({ recorded: { sequence: 1 } })
    expect(put()).toEqual([])
    expect(box.mine.value).toEqual([])
  })

  it.each([null, 500, 503, 507, 401, 408, 429])('is kept and sent again with the same id after %s', async (answer) => {
    answers = [answer, 201]
    const box = await openWindow()
    expect(await box.record(note('a'), 'Note', {})).toEqual({ waiting: true })
    expect(put()).toHaveLength(1)
    await vi.advanceTimersByTimeAsync(2500)
    expect(put()).toEqual([])
    expect(posted.map((p) => p.id)).toEqual([posted[0]!.id, posted[0]!.id])
    expect(box.offline.value).toBe(false)
  })

  it('refused at once is given back to where it was typed', async () => {
    answers = [422]
    const box = await openWindow()
    expect(await box.record(note('a'), 'Note', {})).toEqual({ refused: 'answer 422' })
    expect(put()).toEqual([])
  })

  it('refused after waiting stays, is passed by the next, and can be mended', async () => {
    answers = [null, 422, 201]
    const box = await openWindow()
    await box.record(note('wrong'), 'Note', {})
    await vi.advanceTimersByTimeAsync(2500)
    expect(box.mine.value.map((w) => w.refused)).toEqual(['answer 422'])
    expect(await box.record(note('next'), 'Note', {})).toEqual({ recorded: { sequence: 3 } })
    expect(put()).toHaveLength(1)
    await box.mend(box.mine.value[0]!, note('right'), 'Note')
    expect(put()).toEqual([])
    expect(posted.at(-1)!.text).toBe('right')
    expect(posted.at(-1)!.id).not.toBe(posted[0]!.id)
  })

  it('that shows a photo goes after its picture, and waits with it', async () => {
    const sent: string[] = []
    let isThere = false
    vi.stubGlobal('fetch', async (request: Request) => {
      if (!isThere) throw new TypeError('no connection')
      const isPicture = request.method === 'PUT'
      sent.push(`${request.method} ${new URL(request.url).pathname} ${isPicture ? await request.text() : 'entry'}`)
      return isPicture ? new Response(null, { status: 204 }) : Response.json({ sequence: 1 })
    })
    const box = await openWindow()
    const { keepPicture, pictureOf } = await import('@/field/pictures')
    await keepPicture('p-1', new Blob(['burnt clamp'], { type: 'image/jpeg' }))
    const photo = { type: 'photo', picture: 'p-1', caption: 'clamp' } as unknown as Entry
    expect(await box.record(photo, 'Photo', {})).toEqual({ waiting: true })
    expect(await pictureOf('p-1')).toBeDefined()
    isThere = true
    await vi.advanceTimersByTimeAsync(2500)
    expect(sent).toEqual(['PUT /api/jobs/job-1/photos/p-1 burnt clamp', 'POST /api/jobs/job-1/entries entry'])
    expect(put()).toEqual([])
    expect(await pictureOf('p-1')).toBeUndefined()
  })

  it('follows those made before it', async () => {
    answers = [null, null, 201]
    const box = await openWindow()
    await box.record(note('first'), 'Note', {})
    expect(await box.record(note('second'), 'Note', {})).toEqual({ waiting: true })
    await vi.advanceTimersByTimeAsync(5000)
    expect(posted.slice(-2).map((p) => p.text)).toEqual(['first', 'second'])
    expect(put()).toEqual([])
  })
})

describe('the storage of the browser', () => {
  it('is shared by windows that do not overwrite each other', async () => {
    answers = [null]
    const one = await openWindow()
    const two = await openWindow()
    await Promise.all([one.record(note('of one'), 'Note', {}), two.record(note('of two'), 'Note', {})])
    expect(put()).toHaveLength(2)
    answers = [201]
    const three = await openWindow()
    await three.send()
    expect(put()).toEqual([])
    expect(new Set(posted.slice(-2).map((p) => p.text))).toEqual(new Set(['of one', 'of two']))
  })

  it('with damaged text in it holds up nothing', async () => {
    storage.setItem('fehler.outbox.0.damaged', '{"job": "job-1", "ent')
    storage.setItem('fehler.outbox.1.other', '[]')
    const box = await openWindow()
    await box.send()
    expect(await box.record(note('a'), 'Note', {})).toEqual({ recorded: { sequence: 1 } })
    expect(put()).toEqual(['fehler.outbox.0.damaged', 'fehler.outbox.1.other'])
  })

  it('that is full loses nothing while the window is open, and is said to be', async () => {
    full = true
    answers = [null, 201]
    const box = await openWindow()
    await box.record(note('a'), 'Note', {})
    expect(box.unsaved.value).toBe(true)
    expect(box.mine.value).toHaveLength(1)
    await vi.advanceTimersByTimeAsync(2500)
    expect(box.mine.value).toEqual([])
    expect(box.unsaved.value).toBe(false)
    expect(posted).toHaveLength(2)
  })
})

describe('on a device that is shared', () => {
  it('what somebody else made waits until they are here again', async () => {
    answers = [null]
    const { useOutbox, sender } = await import('./useOutbox')
    const box = useOutbox('job-1')
    await box.record({ ...note('by Ada'), who: 'Ada' }, 'Note', {})
    answers = [201]
    posted = []
    sender.isAnother = (made) => made !== 'Kurt'
    await box.send()
    expect(posted).toEqual([])
    expect(put()).toHaveLength(1)
    sender.isAnother = (made) => made !== 'Ada'
    await box.send()
    expect(posted.map((p) => p.text)).toEqual(['by Ada'])
    expect(put()).toEqual([])
  })
})

describe('a job that was opened here', () => {
  it('is opened at the service before anything of it is sent, and once', async () => {
    answers = [null]
    vi.resetModules()
    const { useOutbox, keepOpening } = await import('./useOutbox')
    const box = useOutbox('job-7')
    keepOpening({ id: 'job-7', circuitId: 'c-1', complaint: 'Hums', at: '2026-03-01T08:00:00.000Z', who: '' } as never)
    await box.record({ ...note('then'), at: '2026-03-01T08:01:00.000Z' } as never, 'Note', {})
    expect(put()).toHaveLength(2)
    answers = [201]
    posted = []
    await box.send()
    expect(posted.map((p) => ('complaint' in p ? 'opened' : p.text))).toEqual(['opened', 'then'])
    await box.send()
    expect(posted).toHaveLength(2)
    expect(put()).toEqual([])
  })

  it('is known to the device with what of it waits, in order', async () => {
    answers = [null]
    vi.resetModules()
    const { useOutbox, keepOpening } = await import('./useOutbox')
    const { unsent } = await import('@/field/field')
    const box = useOutbox('job-7')
    keepOpening({ id: 'job-7', circuitId: 'c-1', complaint: 'Hums', at: '2026-03-01T08:00:00.000Z', who: '' } as never)
    await box.record({ ...note('then'), at: '2026-03-01T08:01:00.000Z' } as never, 'Note', {})
    expect(unsent.of('job-7').map((u) => (u.open ? 'opening' : u.entry.type))).toEqual(['opening', 'note'])
    expect(unsent.of('another')).toEqual([])
  })
})
