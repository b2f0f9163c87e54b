import type { Component } from 'vue'

// One file a device kind, named like the kind: adding a kind is adding its file.
const files = import.meta.glob<{ default: Component }>('./*.vue', { eager: true })

const symbols = new Map(Object.entries(files).map(([path, file]) => [path.slice(2, -4), file.default]))

/** The symbol of a device kind; a plain box for a kind that has none yet. */
export function symbolOf(kind: string): Component {
  return symbols.get(kind) ?? symbols.get('unknown-kind')!
}
