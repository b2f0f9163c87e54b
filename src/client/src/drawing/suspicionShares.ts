import type { Circuit, Diagnosis } from '@/api/client'
import type { Part } from './plane'

/** Probability by conductor id, and by the two points of a device's element or "tag:" for the device as a whole; 0 to 1. */
export type Suspicion = Record<string, number>

/** Whether a part stands for its whole device: the one with the load, or every one where there is none. */
export function standsForAll(circuit: Circuit, part: Part): boolean {
  const all = circuit.sheets.flatMap((s) => s.parts.filter((p) => p.device === part.device))
  return all.some((p) => p.element === 'load') ? part.element === 'load' : true
}

/** Share of the suspects that sit in this part; what concerns the whole device counts where it stands for all of it. */
export function shareOf(circuit: Circuit, part: Part, suspicion: Suspicion): number {
  let share = 0
  for (const [at, probability] of Object.entries(suspicion)) {
    if (at === `${part.device}:`) share += standsForAll(circuit, part) ? probability : 0
    else if (at.split(' ').every((t) => part.terminals.some((x) => x.terminal === t))) share += probability
  }
  return share
}

/** Share of the suspects by wire number. */
export function sharesOfWires(circuit: Circuit, suspicion: Suspicion): Record<string, number> {
  const shares: Record<string, number> = {}
  for (const conductor of circuit.conductors)
    shares[conductor.wire] = (shares[conductor.wire] ?? 0) + (suspicion[conductor.id] ?? 0)
  return shares
}

type Unit = Diagnosis['units'][number]

/**
 * Where in the drawing the suspicion stands: each unit's share on the parts that its suspects are in, as far as they are drawn.
 * With an answer that is only thought of, what that would leave.
 */
export function suspicionOf(
  circuit: Circuit,
  units: Unit[],
  leaves?: { unit: string; probability: number }[],
): Suspicion {
  const drawn = new Set<string>(
    circuit.sheets.flatMap((s) => s.parts.flatMap((p) => p.terminals.map((t) => t.terminal))),
  )
  const left = leaves
    ? leaves.map((l) => ({ unit: units.find((u) => u.unit === l.unit), share: l.probability }))
    : units.map((unit) => ({ unit, share: unit.probability }))
  const shares: Suspicion = {}
  const add = (at: string, share: number) => (shares[at] = (shares[at] ?? 0) + share)
  for (const { unit, share } of left) {
    if (!unit?.unit) continue
    if (unit.term === 'conductor') {
      add(unit.unit, share)
      continue
    }
    const sum = unit.suspects.reduce((total, s) => total + s.probability, 0)
    for (const s of unit.suspects) {
      const points = s.points as string[]
      const isDrawn = points.length > 0 && points.every((p) => drawn.has(p))
      add(isDrawn ? points.join(' ') : `${unit.unit}:`, (share * s.probability) / Math.max(sum, 1e-9))
    }
  }
  return shares
}
