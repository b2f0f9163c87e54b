import { Plane, type School, type Sheet } from './plane'

export type Direction = 'up' | 'down' | 'left' | 'right'

/** How much a step aside counts beside one straight on: along a path first, across to the next path when there is nothing ahead. */
const aside = 2.5

/** The terminal that is drawn next to another one in a direction; sheets lie beside each other. Nothing at the edge. */
export function neighbour(
  sheets: readonly Sheet[],
  school: School,
  from: string,
  direction: Direction,
): string | undefined {
  let left = 0
  const drawn = sheets.flatMap((sheet) => {
    const plane = new Plane(sheet, school)
    const places = sheet.parts.flatMap((p) =>
      p.terminals.map((t) => ({ terminal: t.terminal, x: left + plane.x(t.x, t.y), y: plane.y(t.x, t.y) })),
    )
    left += plane.width
    return places
  })
  const here = drawn.find((d) => d.terminal === from)
  if (!here) return drawn[0]?.terminal
  const cost = (d: (typeof drawn)[number]) => {
    const [dx, dy] = [d.x - here.x, d.y - here.y]
    const [along, across] = {
      up: [-dy, dx],
      down: [dy, dx],
      left: [-dx, dy],
      right: [dx, dy],
    }[direction] as [number, number]
    return along < 1 ? Infinity : along + aside * Math.abs(across)
  }
  const next = drawn.reduce((best, d) => (cost(d) < cost(best) ? d : best))
  return cost(next) < Infinity ? next.terminal : undefined
}
