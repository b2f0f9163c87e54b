import type { Entry, Step } from '@/api/client'
import { showReading } from '@/composables/reading'

const steps = (list: Step[]) =>
  list.map((s) => (s.device ? `${s.device} ${s.position}` : `waited ${s.seconds} s`)).join(', then ')
const seen = (map: Record<string, string>) =>
  Object.entries(map)
    .map(([tag, what]) => `${tag} ${what}`)
    .join(', ')

/** A journal entry in one line. */
export function describe(entry: Entry): string {
  switch (entry.type) {
    case 'complaint':
      return `Reported: ${entry.text}`
    case 'operation':
      return `${steps(entry.steps)} → ${seen(entry.seen)}`
    case 'look':
      return `Looked: ${entry.device} ${entry.look}: ${entry.answer}`
    case 'liveWorkAcknowledged':
      return 'Live tests agreed to'
    case 'isolated':
      return `Isolated and locked off: ${entry.points.join(', ')}`
    case 'provedDead':
      return 'Proved dead, detector checked before and after'
    case 'energised':
      return 'Switched on again'
    case 'reading':
      return `${entry.quantity === 'amps' ? `clamp at ${entry.from}` : entry.quantity === 'startingAmps' ? `clamp at ${entry.from}, starting` : `${entry.from} – ${entry.to}${entry.quantity === 'insulation' ? ' insulation' : ''}`}: ${showReading(entry.value, entry.quantity)}${entry.held.length ? ` with ${steps(entry.held)}` : ''}`
    case 'wireLifted':
      return `Lifted ${entry.conductor} at ${entry.end}`
    case 'wireLanded':
      return `Landed ${entry.conductor}`
    case 'tightened':
      return `Screw of ${entry.terminal}: ${entry.wasLoose ? 'was loose, tightened' : 'tight'}`
    case 'meterChecked':
      return entry.good
        ? `Meter ${entry.meter ? `${entry.meter} ` : ''}checked on a known source: good`
        : `Meter ${entry.meter ? `${entry.meter} ` : ''}found wrong: its readings since the check before do not count`
    case 'finding':
      return `Found: ${entry.text || entry.unit}`
    case 'repair':
      return `Repaired ${entry.unit}: ${entry.action}${entry.cause ? ` (cause: ${entry.cause})` : ''}`
    case 'functionTested':
      return `Function test ${entry.step}: ${entry.passed ? 'passed' : 'FAILED'}`
    case 'restored':
      return `Confirmed: ${entry.item}`
    case 'note':
      return `Note: ${entry.text}`
    case 'struckOut':
      return `Struck out: ${entry.reason || 'no reason given'}`
    case 'closed':
      return `Closed: ${entry.outcome}${entry.text ? `, ${entry.text}` : ''}`
    default:
      return ''
  }
}
