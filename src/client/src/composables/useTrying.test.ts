import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { effectScope, nextTick, ref, type EffectScope } from 'vue'
import type { Circuit, Diagnosis, Proposal, Schemas, Step } from '@/api/client'
import { useTrying } from './useTrying'

const circuit = {
  isolationPoints: ['Q1'],
  devices: [
    {
      tag: 'Q1',
      rest: 'on',
      positions: ['on', 'off'],
      actuations: [{ position: 'off', returns: false, deadOnly: false }],
    },
    {
      tag: 'S2',
      rest: 'released',
      positions: ['released', 'pressed'],
      actuations: [{ position: 'pressed', returns: true, deadOnly: false }],
    },
    { tag: 'M1', rest: 'rest', positions: ['rest'], actuations: [] },
  ],
  sheets: [{ parts: [{ device: 'S2', terminals: [{ terminal: 'S2:13' }, { terminal: 'S2:14' }] }] }],
} as unknown as Circuit
const press: Step = { device: 'S2', position: 'pressed', seconds: 0 }
let scope: EffectScope

/** A service whose button goes where the last step puts it. */
function answer(steps: Step[]): Promise<Schemas['OperationView']> {
  const at = steps.filter((s) => s.device === 'S2').at(-1)?.position ?? 'released'
  const seen = { M1: at === 'pressed' ? 'runs' : 'stopped' }
  return Promise.resolve({
    positions: { S2: at, M1: 'rest' },
    seen,
    events: [],
    seconds: 0,
  } as unknown as Schemas['OperationView'])
}

async function settle() {
  for (let i = 0; i < 20; i++) {
    await nextTick()
    await new Promise((done) => setTimeout(done, 0))
  }
}

describe('what is tried on the drawing', () => {
  const on = ref(false)
  const diagnosis = ref<Diagnosis>()
  let trying: ReturnType<typeof useTrying>

  beforeEach(() => {
    on.value = false
    diagnosis.value = { sequence: 1 } as unknown as Diagnosis
    scope = effectScope()
    trying = scope.run(() => useTrying(answer, ref(circuit), diagnosis, () => on.value))!
  })

  afterEach(() => {
    scope.stop()
  })

  it('begins as the circuit stands, whatever the card proposes', async () => {
    on.value = true
    await settle()
    expect(trying.steps.value).toEqual([])
    expect(trying.before.value?.seen.M1).toBe('stopped')
    trying.touch('S2')
    await settle()
    expect(trying.steps.value).toEqual([press])
    expect(trying.now.value?.seen.M1).toBe('runs')
    expect(trying.before.value?.seen.M1).toBe('stopped')
  })

  it('takes over what the card asks for when it is opened from there', async () => {
    trying.ask({ kind: 'operation', steps: [press], watched: ['M1'] } as unknown as Proposal)
    on.value = true
    await settle()
    expect(trying.steps.value).toEqual([press])
    expect(trying.watched.value).toEqual(['M1'])
    expect(trying.buttons.value).toEqual(['S2:13', 'S2:14'])
    await trying.hand(() => Promise.resolve(true))
    expect(trying.watched.value).toEqual([])
  })

  it('keeps what is being tried when another screen records', async () => {
    on.value = true
    await settle()
    trying.touch('S2')
    await settle()
    diagnosis.value = { sequence: 2 } as unknown as Diagnosis
    await settle()
    expect(trying.steps.value).toEqual([press])
  })

  it('keeps a press on its way when the first diagnosis comes', async () => {
    diagnosis.value = undefined
    on.value = true
    await settle()
    trying.touch('S2')
    diagnosis.value = { sequence: 1 } as unknown as Diagnosis
    await settle()
    expect(trying.steps.value).toEqual([press])
    expect(trying.now.value?.seen.M1).toBe('runs')
    expect(trying.before.value?.seen.M1).toBe('stopped')
  })

  it('begins anew with what was recorded, and goes on with what was refused', async () => {
    on.value = true
    await settle()
    trying.touch('S2')
    await settle()
    expect(await trying.hand(() => Promise.resolve(false))).toBe(false)
    await settle()
    expect(trying.steps.value).toEqual([press])
    const recorded = trying.hand(() => {
      diagnosis.value = { sequence: 3 } as unknown as Diagnosis
      return Promise.resolve(true)
    })
    expect(await recorded).toBe(true)
    await settle()
    expect(trying.steps.value).toEqual([])
  })

  it('asks a motor, operates a button and leaves isolating to its own step', async () => {
    on.value = true
    await settle()
    expect(trying.touch('M1')).toBe(true)
    expect(trying.touch('Q1')).toBe(false)
    expect(trying.problem.value).toContain('isolates the circuit')
    expect(trying.steps.value).toEqual([])
  })
})
