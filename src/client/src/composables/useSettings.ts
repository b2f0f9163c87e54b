import { useLocalStorage, usePreferredDark } from '@vueuse/core'
import { computed, ref, watchEffect } from 'vue'

const theme = useLocalStorage<'auto' | 'light' | 'dark'>('fehler.theme', 'auto')
const who = useLocalStorage('fehler.who', '')
/** Name, light and way of working are being asked for. */
const asking = ref(false)
/** Kinds of test that cannot be made now. */
const without = useLocalStorage<string[]>('fehler.without', [])
/** Whether earlier repairs move what is suspected. */
const learn = useLocalStorage('fehler.learn', true)
/** This person measures volts with a two-pole tester, or at the meter's low-impedance setting. */
const lowImpedance = useLocalStorage('fehler.lowImpedance', false)
/** Readings are typed on keys of the page's own, large enough for gloves; where there is no mouse from the start. */
const pad = useLocalStorage('fehler.pad', window.matchMedia?.('(pointer: coarse)').matches ?? false)
const strategy = useLocalStorage<'mostTelling' | 'fromSupply' | 'deadFirst' | 'halving'>(
  'fehler.strategy',
  'mostTelling',
)
const school = useLocalStorage<'iec' | 'ladder'>('fehler.school', 'iec')
const prefersDark = usePreferredDark()
const isDark = computed(() => theme.value === 'dark' || (theme.value === 'auto' && prefersDark.value))

watchEffect(() => document.documentElement.classList.toggle('dark', isDark.value))

/** Choices of this browser: who works here, light or dark, way of working, school of symbols. */
export function useSettings() {
  return { asking, learn, lowImpedance, pad, without, theme, who, strategy, school, isDark }
}
