/** What the worker is asked. */
export type Asked =
  | { id: number; what: 'start'; path: string }
  | { id: number; what: 'circuit' | 'job' | 'forget'; json: string }
  | { id: number; what: 'answer'; method: string; target: string; body: string }

/** What it answers: text, or why not. */
export type Said = { id: number; text?: string; error?: string }

interface Core {
  BringCircuit(json: string): string
  BringJob(json: string): string
  Forget(circuit: string): void
  Answer(method: string, target: string, body: string): string
}

let core: Core | undefined

async function start(path: string) {
  // Else the runtime takes a worker for one of its own threads and waits for orders.
  Object.assign(globalThis, { dotnetSidecar: true })
  const { dotnet } = await import(/* @vite-ignore */ `${path}dotnet.js`)
  const runtime = await dotnet.create()
  const exports = await runtime.getAssemblyExports('Fehler.Field')
  core = exports.Fehler.Field.Program as Core
}

async function done(asked: Asked): Promise<string> {
  if (asked.what === 'start') {
    await start(asked.path)
    return ''
  }
  if (!core) throw new Error('The core is not here.')
  switch (asked.what) {
    case 'circuit':
      return core.BringCircuit(asked.json)
    case 'job':
      return core.BringJob(asked.json)
    case 'forget':
      core.Forget(asked.json)
      return ''
    case 'answer':
      return core.Answer(asked.method, asked.target, asked.body)
  }
}

// One after the other, in the order in which it was asked.
let before: Promise<unknown> = Promise.resolve()
self.onmessage = (message: MessageEvent<Asked>) => {
  const asked = message.data
  before = before.then(async () => {
    try {
      self.postMessage({ id: asked.id, text: await done(asked) } satisfies Said)
    } catch (error) {
      self.postMessage({ id: asked.id, error: String(error) } satisfies Said)
    }
  })
}
