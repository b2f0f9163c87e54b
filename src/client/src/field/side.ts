import type { Asked, Said } from './field.worker'
import { store } from './store'

type Unnumbered<T> = T extends { id: number } ? Omit<T, 'id'> : never

/** A worker with the core in it, started when it is first asked; it answers one question after the other. */
export class Side {
  /** Circuits and jobs that it has as they stand. */
  readonly brought = new Set<string>()
  private worker?: Worker
  private started?: Promise<void>
  private number = 0
  private readonly waiting = new Map<number, { done: (text: string) => void; failed: (error: Error) => void }>()

  /** Something is being answered, or waits for it. */
  get isBusy() {
    return this.waiting.size > 0
  }

  get isHere() {
    return this.worker !== undefined
  }

  ask(what: Unnumbered<Asked>): Promise<string> {
    this.worker ??= this.begun()
    const id = ++this.number
    return new Promise((done, failed) => {
      this.waiting.set(id, { done, failed })
      this.worker!.postMessage({ ...what, id } as Asked)
    })
  }

  /** The service's answer to a request: the status in three digits, then the body. */
  answer = (method: string, target: string, body: unknown = '') =>
    this.ask({ what: 'answer', method, target, body: typeof body === 'string' ? body : JSON.stringify(body) })

  /** Starts the core from where it was kept; once. */
  start = () =>
    (this.started ??= (async () => {
      const path = (await (await store()).get('about', 'path')) as string | undefined
      if (!path) throw new Error('The core was not fetched yet.')
      await this.ask({ what: 'start', path })
    })().catch((error: Error) => {
      this.started = undefined
      throw error
    }))

  private begun(): Worker {
    const made = new Worker(new URL('./field.worker.ts', import.meta.url), { type: 'module' })
    // It could not be loaded, or died of something that it could not answer: nobody waits for it, and the next question starts another.
    made.onerror = (event) => {
      made.terminate()
      this.worker = undefined
      this.started = undefined
      this.brought.clear()
      const lost = [...this.waiting.values()]
      this.waiting.clear()
      lost.forEach((asked) => asked.failed(new Error(`This device could not work it out: ${event.message}`)))
    }
    made.onmessage = (message: MessageEvent<Said>) => {
      const { id, text, error } = message.data
      const asked = this.waiting.get(id)
      this.waiting.delete(id)
      if (error !== undefined) asked?.failed(new Error(error))
      else asked?.done(text ?? '')
    }
    return made
  }
}
