import { describe, expect, it } from 'vitest'
import { neighbour } from './neighbour'
import type { Sheet } from './plane'

const part = (device: string, terminals: [string, number, number][]) =>
  ({
    device,
    references: [],
    terminals: terminals.map(([terminal, x, y]) => ({ terminal, x, y })),
  }) as unknown as Sheet['parts'][number]
const sheet = (type: string, width: number, parts: Sheet['parts']) =>
  ({ type, width, height: 10, parts }) as unknown as Sheet

// Stop above Start and its retaining contact beside it, the coil below; the poles on a sheet of their own.
const power = sheet('power', 4, [
  part('KM1', [
    ['KM1:1', 0, 2],
    ['KM1:2', 0, 4],
    ['KM1:3', 1, 2],
    ['KM1:4', 1, 4],
  ]),
])
const control = sheet('control', 6, [
  part('S1', [
    ['S1:21', 0, 1],
    ['S1:22', 0, 2],
  ]),
  part('S2', [
    ['S2:13', 0, 3],
    ['S2:14', 0, 4],
  ]),
  part('KM1', [
    ['KM1:13', 3, 3],
    ['KM1:14', 3, 4],
  ]),
  part('KM1', [
    ['KM1:A1', 0, 6],
    ['KM1:A2', 0, 7],
  ]),
])
const sheets = [power, control]

describe('the next terminal in a direction', () => {
  it('goes along the path before it goes across', () => {
    const walk = ['S1:21']
    for (let next; (next = neighbour(sheets, 'iec', walk.at(-1)!, 'down'));) walk.push(next)
    expect(walk).toEqual(['S1:21', 'S1:22', 'S2:13', 'S2:14', 'KM1:A1', 'KM1:A2'])
  })
  it('goes back the way it came', () => {
    expect(neighbour(sheets, 'iec', 'KM1:A1', 'up')).toBe('S2:14')
  })
  it('goes across to the branch beside, and on to the sheet beside', () => {
    expect(neighbour(sheets, 'iec', 'S2:13', 'right')).toBe('KM1:13')
    expect(neighbour(sheets, 'iec', 'S1:22', 'left')).toBe('KM1:3')
  })
  it('follows the rung in a ladder', () => {
    expect(neighbour([control], 'ladder', 'S1:21', 'right')).toBe('S1:22')
    expect(neighbour([control], 'ladder', 'S2:13', 'down')).toBe('KM1:13')
  })
  it('stays at the edge, and begins at the first when it is nowhere', () => {
    expect(neighbour(sheets, 'iec', 'KM1:A2', 'down')).toBeUndefined()
    expect(neighbour(sheets, 'iec', 'X9:1', 'down')).toBe('KM1:1')
  })
})
