/** Date and time as people write them in a logbook, in the reader's zone. */
export function when(iso: string | null | undefined): string {
  if (!iso) return ''
  const date = new Date(iso)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())} ${two(date.getHours())}:${two(date.getMinutes())}`
}

export const outcomeWords: Record<string, string> = {
  RepairedAndProved: 'repaired and proved',
  NothingFound: 'nothing found',
  HandedOver: 'handed over',
}

/** A probability: what is not certain is never shown as certain. */
export const percent = (share: number) =>
  share > 0.99 ? '> 99 %' : share < 0.01 ? '< 1 %' : `${Math.round(share * 100)} %`

/** Currents of the lines of a run: one figure where they are alike, else each at its terminal. */
export function amps(lines: { terminal: string; amps: number }[]) {
  const all = lines.map((l) => l.amps)
  const short = (a: number) => `${Number(a.toPrecision(2))} A`
  return Math.max(...all) < 1.05 * Math.min(...all)
    ? `about ${short(Math.max(...all))} in each line`
    : lines.map((l) => `${l.terminal} ${short(l.amps)}`).join(', ')
}
