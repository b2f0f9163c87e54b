import { describe, expect, it } from 'vitest'
import { nextTick, ref } from 'vue'
import type { Diagnosis, Job, Proposal } from '@/api/client'
import { useLeads } from './useLeads'

const proposal = (from: string) =>
  ({
    kind: 'reading',
    quantity: 'volts',
    from,
    to: 'INC:N',
    held: [{ device: 'S2', position: 'pressed', seconds: 0 }],
  }) as unknown as Proposal

function leads(liveness: Job['liveness'] = 'live', proposals = [proposal('S1:22'), proposal('S0:12')]) {
  const meter = [
    { quantity: 'volts', isClamp: false },
    { quantity: 'amps', isClamp: true },
    { quantity: 'startingAmps', isClamp: true },
  ]
  const job = ref({ liveness, mayTouch: liveness === 'provedDead', meter } as Job)
  const diagnosis = ref<Diagnosis | undefined>({ sequence: 1, proposals } as unknown as Diagnosis)
  return { diagnosis, ...useLeads(job, diagnosis, ref<string | undefined>('INC:N')) }
}

describe('where the leads are', () => {
  it('follows the proposed test until a terminal is tapped', () => {
    const l = leads()
    expect(l.test.value).toMatchObject({ from: 'S1:22', to: 'INC:N', quantity: 'volts' })
    l.tap('KM1:13')
    expect(l.isOwn.value).toBe(true)
    expect(l.test.value).toMatchObject({ from: 'KM1:13', to: 'INC:N' })
  })

  it('lets go of what the proposal held when the reading is another one', () => {
    const l = leads()
    l.tap('KM1:13')
    expect(l.test.value?.held).toEqual([])
  })

  it('moves the second lead when that is the one being moved', () => {
    const l = leads()
    l.moving.value = 2
    l.tap('F1:4')
    expect(l.test.value).toMatchObject({ from: 'S1:22', to: 'F1:4' })
  })

  it('measures ohms by default on a circuit proved dead, with the other lead on the return', () => {
    const l = leads('provedDead', [])
    expect(l.test.value).toBeUndefined()
    l.tap('S1:21')
    expect(l.test.value).toMatchObject({ from: 'S1:21', to: 'INC:N', quantity: 'ohms' })
  })

  it('goes back to the best proposal when something new is recorded', async () => {
    const l = leads()
    l.choose(1)
    expect(l.test.value?.from).toBe('S0:12')
    l.tap('X1:3')
    l.diagnosis.value = { sequence: 2, proposals: [proposal('KM1:A1')] } as unknown as Diagnosis
    await nextTick()
    expect(l.isOwn.value).toBe(false)
    expect(l.test.value?.from).toBe('KM1:A1')
  })

  it('stays where somebody has put them while nothing is proposed', async () => {
    const l = leads('live', [])
    l.tap('KM1:A1')
    l.diagnosis.value = { sequence: 2, proposals: [] } as unknown as Diagnosis
    await nextTick()
    expect(l.test.value?.from).toBe('KM1:A1')
  })

  it('keeps the test that the circuit is being isolated for, until something is found out', async () => {
    const dead = (from: string, change: string) => ({ ...proposal(from), quantity: 'ohms', change }) as Proposal
    const l = leads('live', [dead('F1:2', 'isolate'), proposal('S0:12')])
    const say = async (sequence: number, observations: number, proposals: Proposal[]) => {
      l.diagnosis.value = { sequence, observations, proposals } as unknown as Diagnosis
      await nextTick()
    }
    await say(2, 3, [dead('F1:2', 'isolate'), proposal('S0:12')])
    await say(3, 3, [dead('F1:4', 'none'), dead('F1:2', 'none')])
    expect(l.test.value?.from).toBe('F1:2')
    await say(4, 3, [dead('KM1:13', 'none'), dead('F1:4', 'none'), dead('F1:2', 'none')])
    expect(l.test.value?.from).toBe('F1:2')
    await say(5, 4, [dead('KM1:13', 'none'), dead('F1:2', 'none')])
    expect(l.test.value?.from).toBe('KM1:13')
  })

  it('puts a clamp around one lead, and two leads again for volts', () => {
    const l = leads()
    l.set({ quantity: 'amps' })
    l.tap('F2:2')
    expect(l.test.value).toMatchObject({ from: 'F2:2', to: 'F2:2', quantity: 'amps' })
    l.set({ quantity: 'volts' })
    expect(l.test.value).toMatchObject({ from: 'F2:2', to: 'INC:N', quantity: 'volts' })
  })

  it.each(['amps', 'startingAmps'] as const)(
    'puts a clamp for %s around one terminal, and two leads on again after it',
    (quantity) => {
      const l = leads()
      l.tap('F2:2')
      l.set({ quantity })
      expect(l.test.value).toMatchObject({ from: 'F2:2', to: 'F2:2', quantity })
      l.tap('F2:4')
      expect(l.test.value).toMatchObject({ from: 'F2:4', to: 'F2:4' })
      l.set({ quantity: 'volts' })
      expect(l.test.value).toMatchObject({ from: 'F2:4', to: 'INC:N' })
    },
  )

  it('keeps the test that a value is being typed for, and lets go of it when that is cleared', async () => {
    const l = leads()
    const news = { sequence: 2, proposals: [proposal('KM1:A1')] } as unknown as Diagnosis
    l.typing.value = 'typing'
    await nextTick()
    l.diagnosis.value = news
    await nextTick()
    expect(l.test.value?.from).toBe('S1:22')
    expect(l.isOvertaken.value).toBe(true)
    l.typing.value = 'no'
    await nextTick()
    expect(l.test.value?.from).toBe('KM1:A1')
    expect(l.isOvertaken.value).toBe(false)
  })

  it('goes on with the next test once what was typed is recorded, and stays when it is refused', async () => {
    const l = leads()
    l.typing.value = 'typing'
    await nextTick()
    l.typing.value = 'sending'
    await nextTick()
    l.typing.value = 'typing'
    await nextTick()
    expect(l.test.value?.from).toBe('S1:22')
    l.typing.value = 'sending'
    await nextTick()
    l.diagnosis.value = { sequence: 2, proposals: [proposal('KM1:A1')] } as unknown as Diagnosis
    await nextTick()
    expect(l.test.value?.from).toBe('KM1:A1')
  })
})
