export type Theme = 'system' | 'light' | 'dark'
const KEY = 'upper-field-theme'
const isDarkSystem = () => window.matchMedia('(prefers-color-scheme: dark)').matches

/** The chosen look, kept in this browser; `system` follows the machine. */
export const readTheme = (): Theme => (localStorage.getItem(KEY) as Theme | null) ?? 'system'

export function applyTheme(theme: Theme = readTheme()): void {
  localStorage.setItem(KEY, theme)
  const isDark = theme === 'dark' || (theme === 'system' && isDarkSystem())
  document.documentElement.dataset.theme = isDark ? 'dark' : 'light'
}

window.matchMedia('(prefers-color-scheme: dark)').addEventListener('change', () => applyTheme())
