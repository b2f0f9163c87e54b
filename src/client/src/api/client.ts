import createClient from 'openapi-fetch'
import { send } from './send'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Circuit = Schemas['CircuitView']
export type Job = Schemas['JobView']
export type Diagnosis = Schemas['DiagnosisView']
export type Proposal = Schemas['ProposalView']
export type Entry = Schemas['JournalEntry']
export type Step = Schemas['Step']
export type Quantity = Schemas['Quantity']
export type Recorded = Schemas['Recorded']
export type SafetyStep = NonNullable<Schemas['SafetyStep']>

export const api = createClient<paths>({ baseUrl: '', fetch: (request: Request) => send(request) })

/** A refusal of the service, in its own words. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message)
  }
}

/** The answer's data, or the problem's detail as an error. */
export function need<T>(answer: { data?: T; error?: unknown; response: Response }): T {
  if (answer.error !== undefined || answer.data === undefined) {
    const problem = answer.error as { detail?: string; title?: string } | undefined
    throw new Refused(
      problem?.detail ?? problem?.title ?? `The service answered ${answer.response.status}.`,
      answer.response.status,
    )
  }
  return answer.data
}
