import { inPlace, isFirst } from '@/field/field'

/**
 * Sends a request to the service: with the token that other sites' pages cannot read, once more when the page turned out older than the
 * session, and after a second person has stood by where the service asks for one. Where there is no service this device answers what it can.
 */
export async function send(request: Request): Promise<Response> {
  const instead = request.clone()
  const here = isFirst(request) ? await inPlace(request.clone()) : undefined
  if (here) return here
  try {
    const answer = await throughTheNet(request)
    // A proxy that stands before a service which is gone.
    return (answer.status === 502 || answer.status === 504 ? await inPlace(instead) : undefined) ?? answer
  } catch (error) {
    const answer = await inPlace(instead)
    if (answer) return answer
    throw error
  }
}

async function throughTheNet(request: Request): Promise<Response> {
  if (request.method === 'GET') return noticed(await globalThis.fetch(request))
  const again = request.clone()
  const answer = await globalThis.fetch(marked(request))
  const title = answer.status === 400 || answer.status === 422 ? await titleOf(answer) : undefined
  if (title === 'Page out of date') {
    await globalThis.fetch('/api/session')
    return noticed(await globalThis.fetch(marked(again)))
  }
  if (title === 'Second person needed' && (await secondPerson.ask(again.clone())))
    return noticed(await globalThis.fetch(marked(again)))
  return noticed(answer)
}

/** Put in place by the application: what happens when nobody is signed in any more, and who asks for a second person. */
export const signedOut = { tell: () => {} }
export const secondPerson: { ask: (request: Request) => Promise<boolean> } = { ask: async () => false }

function noticed(answer: Response): Response {
  if (answer.status === 401) signedOut.tell()
  return answer
}

function marked(request: Request): Request {
  const token = typeof document === 'undefined' ? undefined : /(?:^|; )XSRF-TOKEN=([^;]+)/.exec(document.cookie)?.[1]
  if (token) request.headers.set('X-XSRF-TOKEN', decodeURIComponent(token))
  return request
}

async function titleOf(answer: Response): Promise<string | undefined> {
  const problem = (await answer
    .clone()
    .json()
    .catch(() => undefined)) as { title?: string } | undefined
  return problem?.title
}
