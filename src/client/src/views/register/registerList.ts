import { send } from '@/api/send'
import type { Schemas } from '@/api/client'

/** How far a register list is: lines done and in all, how many were taken in, and what was set aside with its line. */
export interface Listed {
  done: number
  of: number
  taken: number
  setAside: string[]
}

/** A list of starters begins with headings, among them its tag; a wiring list begins with one of its tables. */
export const isRegisterList = (text: string) =>
  /(^|[,;\t"])\s*(tag|designation)\s*($|[,;\t"\r])/i.test(
    text
      .replace(/^\uFEFF/, '')
      .trimStart()
      .split('\n', 1)[0] ?? '',
  )

/**
 * Sends a register list and follows what becomes of each line; what was taken in before the connection broke stays.
 * @throws an error with the server's sentence when the list as a whole is refused.
 */
export async function takeRegisterList(text: string, so: Listed) {
  const answer = await send(
    new Request('/api/circuits/register-list', {
      method: 'POST',
      headers: { 'Content-Type': 'text/csv' },
      body: text,
    }),
  )
  if (!answer.ok || !answer.body) {
    const refused = (await answer.json().catch(() => undefined)) as { detail?: string } | undefined
    throw new Error(refused?.detail ?? 'The server did not take it.')
  }
  const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  for (;;) {
    const { done, value } = await reader.read()
    const lines = (rest + (value ?? '')).split('\n')
    rest = lines.pop() ?? ''
    for (const line of lines) take(JSON.parse(line) as Schemas['RegisterLineDone'], so)
    if (done) return
  }
}

function take(line: Schemas['RegisterLineDone'], so: Listed) {
  so.of = line.of
  if (line.line > 0) so.done++
  if (line.problem) so.setAside.push(line.line > 0 ? `Line ${line.line} ${line.tag}: ${line.problem}` : line.problem)
  else so.taken++
}
