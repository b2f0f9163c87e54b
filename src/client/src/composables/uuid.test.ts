import { expect, it, vi } from 'vitest'
import { uuid } from './uuid'

// RFC 9562, section 5.4: version 4 in the third group, variant 10 in the fourth.
const version4 = /^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/

it('makes identifiers of version 4, none twice', () => {
  const made = Array.from({ length: 500 }, uuid)
  expect(made.every((id) => version4.test(id))).toBe(true)
  expect(new Set(made).size).toBe(500)
})

it('makes them on a page that the browser does not call secure', () => {
  vi.stubGlobal('crypto', { getRandomValues: (a: Uint8Array) => a.fill(0xff) })
  expect(uuid()).toBe('ffffffff-ffff-4fff-bfff-ffffffffffff')
  vi.unstubAllGlobals()
})
