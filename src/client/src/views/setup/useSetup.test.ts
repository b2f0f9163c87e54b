import { beforeEach, expect, it, vi } from 'vitest'
import { useSetup } from './useSetup'

/** Answers that the test gives when it likes, in the order of the questions. */
let waiting: { body: { edit?: { to: string }; file?: string }; answer: (file: string) => void }[]

vi.mock('@/api/client', () => ({
  need: (answer: unknown) => answer,
  api: {
    POST: (_: string, { body }: { body: never }) =>
      new Promise((done) => waiting.push({ body, answer: (file) => done({ file, circuit: {}, proposals: [] }) })),
  },
}))

beforeEach(() => {
  waiting = []
  vi.stubGlobal('localStorage', { setItem: () => {}, getItem: () => null, removeItem: () => {} })
})

const settled = () => new Promise((done) => setTimeout(done))

it('a family that was chosen later stands, whichever answer comes last', async () => {
  const setup = useSetup('draft')
  void setup.build()
  void setup.build()
  waiting[1]!.answer('second')
  await settled()
  waiting[0]!.answer('first')
  await settled()
  expect(setup.current.value?.file).toBe('second')
  expect(setup.busy.value).toBe(false)
})

it('a change made while another is on its way begins with what that has brought', async () => {
  const setup = useSetup('draft')
  void setup.build()
  waiting[0]!.answer('made')
  await settled()
  void setup.edit({ type: 'one' } as never)
  void setup.edit({ type: 'two' } as never)
  await settled()
  expect(waiting).toHaveLength(2)
  waiting[1]!.answer('made, one')
  await settled()
  expect(waiting[2]!.body.file).toBe('made, one')
  waiting[2]!.answer('made, one, two')
  await settled()
  expect(setup.current.value?.file).toBe('made, one, two')
  setup.go(-1)
  expect(setup.current.value?.file).toBe('made, one')
})
