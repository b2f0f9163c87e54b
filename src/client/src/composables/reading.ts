import type { Quantity, ReadingValue } from '@/api/client'

const words: Record<string, ReadingValue['kind']> = {
  ol: 'overLimit',
  '0l': 'overLimit',
  full: 'full',
  beep: 'beep',
  silent: 'silent',
  'no beep': 'silent',
  stray: 'unsteady',
  unsteady: 'unsteady',
  'not sure': 'notSure',
  '?': 'notSure',
}

/**
 * Reads what a person types from a meter: `230`, `4k7`, `4.7k`, `0,3`, `2M2`, or one of the words OL, full, beep,
 * no beep, stray. Returns a sentence that says what to type when it is none of these.
 */
export function parseReading(text: string, quantity: Quantity): ReadingValue | string {
  const trimmed = text.trim().toLowerCase()
  if (trimmed === '') return 'Type what the meter shows.'
  const word = words[trimmed]
  if (word)
    return fits(word, quantity)
      ? { kind: word, number: 0 }
      : `“${text.trim()}” does not go with ${quantityWord(quantity)}.`
  const match = /^(-?\d+(?:[.,]\d+)?)\s*(k|m)?\s*(\d*)\s*(?:v|a|ω|ohm|ohms|r)?$/i.exec(text.trim())
  if (!match) return `“${text.trim()}” is not a reading. Type a number like 230, 0.3 or 4k7, or OL, full, beep, stray.`
  const scale = match[2] === 'k' || match[2] === 'K' ? 1e3 : match[2] === 'M' ? 1e6 : match[2] === 'm' ? 1e-3 : 1
  if (match[3] && !match[2]) return `“${text.trim()}” is not a reading. Type a number like 230, 0.3 or 4k7.`
  const digits = match[3] ? `${match[1]!.replace(',', '.')}.${match[3]}` : match[1]!.replace(',', '.')
  // An insulation tester's display is in megohm.
  const unit = quantity === 'insulation' && !match[2] ? 1e6 : 1
  const number = Number(digits) * scale * unit
  if (!Number.isFinite(number)) return `“${text.trim()}” is not a reading. Type a number like 230, 0.3 or 4k7.`
  if (quantity === 'continuity') return 'A continuity test beeps or stays silent; switch to ohms for a number.'
  return { kind: 'number', number }
}

function fits(kind: ReadingValue['kind'], quantity: Quantity): boolean {
  if (kind === 'notSure') return true
  if (kind === 'full') return isVolts(quantity)
  if (kind === 'overLimit') return !isLive(quantity)
  if (kind === 'beep' || kind === 'silent') return quantity === 'continuity'
  return quantity !== 'continuity'
}

/** A voltage, alternating or direct: taken on the live circuit. */
export function isVolts(quantity: Quantity): boolean {
  return quantity === 'volts' || quantity === 'dcVolts'
}

/** Taken on the live circuit. */
export function isLive(quantity: Quantity): boolean {
  return isVolts(quantity) || isAmps(quantity)
}

/** A current, by a clamp around what is landed on one terminal. */
export function isAmps(quantity: Quantity): boolean {
  return quantity === 'amps' || quantity === 'startingAmps'
}

export function quantityWord(quantity: Quantity): string {
  return {
    volts: 'volts',
    dcVolts: 'volts DC',
    ohms: 'ohms',
    continuity: 'continuity',
    amps: 'amps',
    startingAmps: 'starting amps',
    insulation: 'insulation',
  }[quantity]
}

/** A reading as shown, with its unit. */
export function showReading(value: ReadingValue, quantity: Quantity): string {
  switch (value.kind) {
    case 'number':
      return isVolts(quantity)
        ? `${digits(value.number ?? 0)} V`
        : isAmps(quantity)
          ? `${digits(value.number ?? 0)} A`
          : showOhms(value.number ?? 0)
    case 'overLimit':
      return 'OL'
    case 'full':
      return 'full'
    case 'beep':
      return 'beep'
    case 'silent':
      return 'no beep'
    case 'notSure':
      return 'not sure'
    default:
      return 'unsteady'
  }
}

function showOhms(ohms: number): string {
  return ohms >= 1e6 ? `${digits(ohms / 1e6)} MΩ` : ohms >= 1000 ? `${digits(ohms / 1000)} kΩ` : `${digits(ohms)} Ω`
}

function digits(value: number): string {
  const size = Math.abs(value)
  return Number(value.toFixed(size >= 100 ? 0 : size >= 10 ? 1 : 2)).toString()
}
