import type { Circuit } from '@/api/client'

export type Sheet = Circuit['sheets'][number]
export type Part = Sheet['parts'][number]
export type School = 'iec' | 'ladder'

const margin = 26

/** A sheet's own axes, in pixels: a ladder is the control sheet with its axes exchanged. */
export class Plane {
  readonly isLadder: boolean
  constructor(
    readonly sheet: Sheet,
    school: School,
  ) {
    this.isLadder = school === 'ladder' && sheet.type === 'control'
  }
  x = (x: number, y: number) => (this.isLadder ? y * 38 + margin + 14 : x * 46 + margin)
  y = (x: number, y: number) => (this.isLadder ? x * 24 + 6 : y * 26 + 14)
  get referenceLines() {
    return Math.max(0, ...this.sheet.parts.map((p) => p.references.length))
  }
  get width() {
    return this.isLadder
      ? this.sheet.height * 38 + margin + (this.referenceLines ? 150 : 20)
      : this.sheet.width * 46 + margin + 34
  }
  get height() {
    return this.isLadder ? this.sheet.width * 24 + 20 : this.sheet.height * 26 + 24 + this.referenceLines * 13
  }
  /** Puts an SVG element's origin on a point of the sheet. */
  at = (x: number, y: number) => `translate(${this.x(x, y)} ${this.y(x, y)})`
  path = (points: { x: number; y: number }[]) =>
    'M' + points.map((p) => `${this.x(p.x, p.y)} ${this.y(p.x, p.y)}`).join('L')
}

/** A part with its place and size in pixels. */
export interface PlacedPart extends Part {
  /** The part as its path writes it. */
  text: string
  left: number
  top: number
  /** Along the current: down the page, or along the rung. */
  length: number
  /** Offsets of its poles across the current. */
  xs: number[]
  /** The same when it lies in a ladder. */
  rows: number[]
}

export function placed(plane: Plane, part: Part): PlacedPart {
  const offsets = [...new Set(part.terminals.map((t) => t.x - part.x))]
  return {
    ...part,
    text: `${part.device}:${part.name}`,
    left: plane.x(part.x, part.y),
    top: plane.y(part.x, part.y),
    length: part.height * (plane.isLadder ? 38 : 26),
    xs: offsets.map((x) => x * 46),
    rows: offsets.map((x) => x * 24),
  }
}
