/** What every symbol is given: the x of each pole, the height of the part and the role of its element, all in drawing units. */
export interface SymbolProps {
  xs: number[]
  height: number
  role: string
}

/** Strokes of a contact after IEC 60617: open ones swing left, closed ones right, with a stop. */
export function contact(x: number, h: number, closed: boolean): string {
  const top = h * 0.32
  const bottom = h * 0.68
  return closed
    ? `M${x} 0V${top} h9 M${x} ${h}V${bottom} L${x + 10} ${top - 5}`
    : `M${x} 0V${top} M${x} ${h}V${bottom} L${x - 11} ${top + 1}`
}

/** A dashed mechanical link across poles. */
export function link(xs: number[], h: number): string {
  return xs.length > 1 ? `M${xs[0]! - 5} ${h / 2} H${xs[xs.length - 1]! - 5}` : ''
}
