import { describe as group, expect, it } from 'vitest'
import type { Entry } from '@/api/client'
import { outcomeWords, when } from '@/components/format'
import { describe } from './journalWords'

const step = (device: string, position: string) => ({ device, position, seconds: 0 })

group('a journal entry in one line', () => {
  it.each<[string, Entry]>([
    ['Reported: dead', { type: 'complaint', text: 'dead' } as Entry],
    [
      'S2 pressed → KM1 in, M1 runs',
      { type: 'operation', steps: [step('S2', 'pressed')], seen: { KM1: 'in', M1: 'runs' } } as Entry,
    ],
    ['Looked: F2 flag: tripped', { type: 'look', device: 'F2', look: 'flag', answer: 'tripped' } as Entry],
    [
      'S1:21 – S1:22: OL',
      {
        type: 'reading',
        quantity: 'ohms',
        from: 'S1:21',
        to: 'S1:22',
        held: [],
        value: { kind: 'overLimit', number: 0 },
        meter: '',
      } as Entry,
    ],
    [
      'KM1:A1 – INC:N: 230 V with S2 pressed',
      {
        type: 'reading',
        quantity: 'volts',
        from: 'KM1:A1',
        to: 'INC:N',
        held: [step('S2', 'pressed')],
        value: { kind: 'number', number: 230 },
        meter: '',
      } as Entry,
    ],
    ['Isolated and locked off: Q1', { type: 'isolated', points: ['Q1'] } as Entry],
    ['Lifted 2.1 at S1:21', { type: 'wireLifted', conductor: '2.1', end: 'S1:21' } as Entry],
    [
      'Repaired S1: block replaced (cause: water)',
      { type: 'repair', unit: 'S1', action: 'block replaced', parts: [], minutes: 5, cause: 'water' } as Entry,
    ],
    [
      'clamp at F2:2, starting: 48 A with S2 pressed',
      {
        type: 'reading',
        quantity: 'startingAmps',
        from: 'F2:2',
        to: 'F2:2',
        held: [step('S2', 'pressed')],
        value: { kind: 'number', number: 48 },
        meter: '',
      } as Entry,
    ],
    [
      'M1:U – M1:PE insulation: 150 kΩ',
      {
        type: 'reading',
        quantity: 'insulation',
        from: 'M1:U',
        to: 'M1:PE',
        held: [],
        value: { kind: 'number', number: 150_000 },
        meter: '',
      } as Entry,
    ],
    [
      'Screw of KM1:13: was loose, tightened',
      { type: 'tightened', terminal: 'KM1:13', wasLoose: true } as unknown as Entry,
    ],
    ['Screw of KM1:13: tight', { type: 'tightened', terminal: 'KM1:13', wasLoose: false } as unknown as Entry],
    ['Meter checked on a known source: good', { type: 'meterChecked', good: true, meter: '' } as Entry],
    [
      'Meter M-2 found wrong: its readings since the check before do not count',
      { type: 'meterChecked', good: false, meter: 'M-2' } as Entry,
    ],
    ['Function test rest: FAILED', { type: 'functionTested', step: 'rest', passed: false, seen: {} } as Entry],
  ])('%s', (line, entry) => {
    expect(describe(entry)).toBe(line)
  })
})

group('dates and outcomes', () => {
  it('are written so that they sort, and missing ones are blank', () => {
    expect(when('2026-03-01T08:05:00Z')).toMatch(/^2026-03-01 \d\d:05$/)
    expect(when(null)).toBe('')
  })
  it('are in words', () => {
    expect(Object.values(outcomeWords)).toContain('repaired and proved')
  })
})
