import type { Schemas } from '@/api/client'

/** As a plate is read; what stands on no plate comes last and is folded. */
const groups = [
  { id: 'rating', name: 'Rating' },
  { id: 'coil', name: 'Coil' },
  { id: 'contacts', name: 'Contacts' },
  { id: 'setting', name: 'Setting' },
  { id: 'expert', name: 'On no plate: for the sums only' },
] as const

/** Values of a device by where a person looks for them; empty groups are left out. */
export const plateGroups = (settings: Schemas['SettingView'][]) =>
  groups
    .map((g) => ({ ...g, isFolded: g.id === 'expert', settings: settings.filter((s) => s.group === g.id) }))
    .filter((g) => g.settings.length > 0)
