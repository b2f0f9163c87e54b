import { beforeEach, describe, expect, it, vi } from 'vitest'

/** Requests as they went out, and what the service answers to each in turn; null is a connection that fails. */
let sent: { method: string; path: string; token: string | null; body: string }[]
let answers: (Response | null)[]
const here = vi.hoisted(() => ({ inPlace: vi.fn(), isFirst: vi.fn() }))
vi.mock('@/field/field', () => here)

const problem = (status: number, title: string) =>
  new Response(JSON.stringify({ title, detail: title }), { status, headers: { 'content-type': 'application/json' } })
const ok = () => new Response('{}', { status: 200 })
const post = () => new Request('http://here/api/jobs/1/entries', { method: 'POST', body: '{"id":"7"}' })
const get = (path = '/api/circuits') => new Request(`http://here${path}`)

async function fresh() {
  vi.resetModules()
  return import('./send')
}

beforeEach(() => {
  sent = []
  answers = []
  here.inPlace.mockReset().mockResolvedValue(undefined)
  here.isFirst.mockReset().mockReturnValue(false)
  vi.stubGlobal('document', { cookie: 'theme=dark; XSRF-TOKEN=a%2Bb' })
  vi.stubGlobal('fetch', async (asked: Request | string) => {
    const request = typeof asked === 'string' ? new Request(`http://here${asked}`) : asked
    sent.push({
      method: request.method,
      path: new URL(request.url).pathname,
      token: request.headers.get('X-XSRF-TOKEN'),
      body: await request.text(),
    })
    const answer = answers.length ? answers.shift()! : ok()
    if (!answer) throw new TypeError('no connection')
    return answer
  })
})

describe('a request', () => {
  it('that changes something carries the token that other pages cannot read, one that reads does not', async () => {
    const { send } = await fresh()
    await send(post())
    await send(get())
    expect(sent.map((s) => s.token)).toEqual(['a+b', null])
  })

  it('is sent once more with a new token when the page turned out older than the session', async () => {
    answers = [problem(400, 'Page out of date'), ok(), ok()]
    const { send } = await fresh()
    expect((await send(post())).status).toBe(200)
    expect(sent.map((s) => s.path)).toEqual(['/api/jobs/1/entries', '/api/session', '/api/jobs/1/entries'])
    expect(sent[2]!.body).toBe('{"id":"7"}')
  })

  it('refused for another reason is not sent again', async () => {
    answers = [problem(400, 'Not accepted')]
    const { send } = await fresh()
    expect((await send(post())).status).toBe(400)
    expect(sent).toHaveLength(1)
  })

  it('that nobody is signed in for says so once to whoever shows the way to sign in', async () => {
    answers = [problem(401, 'Not signed in')]
    const { send, signedOut } = await fresh()
    signedOut.tell = vi.fn()
    expect((await send(get())).status).toBe(401)
    expect(signedOut.tell).toHaveBeenCalledTimes(1)
  })
})

describe('a second person', () => {
  it('is asked for where the service wants one, and the request goes once they stand by', async () => {
    answers = [problem(422, 'Second person needed'), ok()]
    const { send, secondPerson } = await fresh()
    secondPerson.ask = vi.fn(async (request: Request) => (await request.text()) === '{"id":"7"}')
    expect((await send(post())).status).toBe(200)
    expect(sent).toHaveLength(2)
  })

  it('who does not come leaves the refusal as it is', async () => {
    answers = [problem(422, 'Second person needed')]
    const { send, secondPerson } = await fresh()
    secondPerson.ask = vi.fn(async () => false)
    expect((await send(post())).status).toBe(422)
    expect(sent).toHaveLength(1)
  })
})

describe('without the service', () => {
  it('this device answers what it can', async () => {
    answers = [null]
    here.inPlace.mockResolvedValue(new Response('"here"'))
    const { send } = await fresh()
    expect(await (await send(get('/api/jobs/1/diagnosis'))).json()).toBe('here')
  })

  it('what it cannot answer fails as a connection does', async () => {
    answers = [null]
    const { send } = await fresh()
    await expect(send(get())).rejects.toThrow('no connection')
  })

  it.each([502, 504])('a proxy that answers %i for it counts as gone', async (status) => {
    answers = [new Response('gone', { status })]
    here.inPlace.mockResolvedValue(new Response('"here"'))
    const { send } = await fresh()
    expect(await (await send(get())).json()).toBe('here')
  })

  it('a service that answers is not spoken for, whatever it says', async () => {
    answers = [problem(500, 'Server error')]
    const { send } = await fresh()
    expect((await send(get())).status).toBe(500)
    expect(here.inPlace).not.toHaveBeenCalled()
  })
})

describe('with the device first', () => {
  it('the service is spared', async () => {
    here.isFirst.mockReturnValue(true)
    here.inPlace.mockResolvedValue(new Response('"here"'))
    const { send } = await fresh()
    expect(await (await send(get('/api/jobs/1/diagnosis'))).json()).toBe('here')
    expect(sent).toHaveLength(0)
  })

  it('what the device does not know is asked of the service', async () => {
    here.isFirst.mockReturnValue(true)
    const { send } = await fresh()
    expect((await send(get('/api/jobs/1/diagnosis'))).status).toBe(200)
    expect(sent).toHaveLength(1)
  })
})
