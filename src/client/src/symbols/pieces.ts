/** What every symbol is given: the x of each pole, the height of the part and the role of its element, all in drawing units. */
export interface SymbolProps {
  xs: number[]
  height: number
  role: string
  /** Terminals of the element as written. */
  name?: string
  /** A contact that acts after a delay. */
  delayed?: boolean
  /** Whether the contact is made at this moment; drawn as at rest when not given. */
  made?: boolean
}

/** Strokes of a contact after IEC 60617: open ones swing left, closed ones right, with a stop. Operated, the blade moves. */
export function contact(x: number, h: number, closed: boolean, made?: boolean): string {
  const top = h * 0.32
  const bottom = h * 0.68
  if (closed)
    return made === false
      ? `M${x} 0V${top} h9 M${x} ${h}V${bottom} L${x + 19} ${top + 3}`
      : `M${x} 0V${top} h9 M${x} ${h}V${bottom} L${x + 10} ${top - 5}`
  return made ? `M${x} 0V${h}` : `M${x} 0V${top} M${x} ${h}V${bottom} L${x - 11} ${top + 1}`
}

/** A dashed mechanical link across poles. */
export function link(xs: number[], h: number): string {
  return xs.length > 1 ? `M${xs[0]! - 5} ${h / 2} H${xs[xs.length - 1]! - 5}` : ''
}

/** The two leads and the box of a coil. */
export function coilLeads(x: number, h: number): string {
  return `M${x} 0V${h * 0.3} M${x} ${h * 0.7}V${h}`
}

/** The parachute of a delayed contact, open towards the side that it is slow to (IEC 60617). */
export function delay(x: number, h: number): string {
  return `M${x - 8} ${h * 0.46} h-13 M${x - 8} ${h * 0.54} h-13 M${x - 17} ${h * 0.34} a9 9 0 0 0 0 ${h * 0.32}`
}
