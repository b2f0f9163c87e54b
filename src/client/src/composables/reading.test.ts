import { describe, expect, it } from 'vitest'
import { parseReading, showReading } from './reading'

describe('what a person types from a meter', () => {
  it.each([
    ['230', 230],
    ['0', 0],
    ['0,3', 0.3],
    ['229.7 V', 229.7],
    ['4k7', 4700],
    ['4.7k', 4700],
    ['2M2', 2_200_000],
    ['1.5 kohm', 1500],
    ['12 ohm', 12],
  ])('%s', (text, number) => {
    const value = parseReading(text, 'ohms')
    expect(value).toEqual({ kind: 'number', number: expect.closeTo(number, 6) })
  })

  it.each(['lots', '', '12x', '1..2', '--3', '4k7k'])('refuses %s with a sentence', (text) => {
    expect(typeof parseReading(text, 'volts')).toBe('string')
  })

  it('takes the words of the trade where they fit', () => {
    expect(parseReading('OL', 'ohms')).toEqual({ kind: 'overLimit', number: 0 })
    expect(parseReading('full', 'volts')).toEqual({ kind: 'full', number: 0 })
    expect(parseReading('beep', 'continuity')).toEqual({ kind: 'beep', number: 0 })
    expect(typeof parseReading('OL', 'volts')).toBe('string')
    expect(typeof parseReading('230', 'continuity')).toBe('string')
  })

  it('shows values with their unit', () => {
    expect(showReading({ kind: 'number', number: 4700 }, 'ohms')).toBe('4.7 kΩ')
    expect(showReading({ kind: 'number', number: 229.64 }, 'volts')).toBe('230 V')
    expect(showReading({ kind: 'overLimit', number: 0 }, 'ohms')).toBe('OL')
  })

  it('takes amps from a clamp and nothing that a clamp cannot show', () => {
    expect(parseReading('6.2 A', 'amps')).toEqual({ kind: 'number', number: 6.2 })
    expect(showReading({ kind: 'number', number: 6.21 }, 'amps')).toBe('6.21 A')
    expect(typeof parseReading('OL', 'amps')).toBe('string')
    expect(typeof parseReading('full', 'amps')).toBe('string')
    expect(typeof parseReading('beep', 'amps')).toBe('string')
  })

  it.each([
    ['0.5', 500_000],
    ['0,15', 150_000],
    ['220', 220_000_000],
    ['150k', 150_000],
    ['2M', 2_000_000],
  ])('takes %s from an insulation tester, whose display is in megohm', (text, ohms) => {
    expect(parseReading(text, 'insulation')).toEqual({ kind: 'number', number: expect.closeTo(ohms, 3) })
  })

  it('takes OL from an insulation tester and no voltage', () => {
    expect(parseReading('OL', 'insulation')).toEqual({ kind: 'overLimit', number: 0 })
    expect(typeof parseReading('full', 'insulation')).toBe('string')
    expect(typeof parseReading('OL', 'startingAmps')).toBe('string')
    expect(showReading({ kind: 'number', number: 48.2 }, 'startingAmps')).toBe('48.2 A')
    expect(showReading({ kind: 'number', number: 2_000_000 }, 'insulation')).toBe('2 MΩ')
  })

  it.each(['volts', 'dcVolts', 'ohms', 'continuity', 'amps', 'startingAmps', 'insulation'] as const)(
    'lets %s be not sure',
    (quantity) => {
      expect(parseReading('not sure', quantity)).toEqual({ kind: 'notSure', number: 0 })
      expect(parseReading('?', quantity)).toEqual({ kind: 'notSure', number: 0 })
      expect(showReading({ kind: 'notSure', number: 0 }, quantity)).toBe('not sure')
    },
  )
})
