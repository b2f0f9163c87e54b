import { useLocalStorage, usePreferredDark } from '@vueuse/core'
import { computed, watchEffect } from 'vue'

const theme = useLocalStorage<'auto' | 'light' | 'dark'>('fehler.theme', 'auto')
const who = useLocalStorage('fehler.who', '')
const strategy = useLocalStorage<'mostTelling' | 'fromSupply' | 'deadFirst'>('fehler.strategy', 'mostTelling')
const school = useLocalStorage<'iec' | 'ladder'>('fehler.school', 'iec')
const prefersDark = usePreferredDark()
const isDark = computed(() => theme.value === 'dark' || (theme.value === 'auto' && prefersDark.value))

watchEffect(() => document.documentElement.classList.toggle('dark', isDark.value))

/** Choices of this browser: who works here, light or dark, way of working, school of symbols. */
export function useSettings() {
  return { theme, who, strategy, school, isDark }
}
