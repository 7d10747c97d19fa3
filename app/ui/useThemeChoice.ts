type Choice = 'system' | 'light' | 'dark'

const KEY = 'ridgeway-theme'
const isChoice = (text: string | null): text is Choice =>
  text === 'system' || text === 'light' || text === 'dark'

let follows = false

/** Light or dark: as chosen on this device, else as the system has it, from one hour to the next. */
export function useThemeChoice() {
  const choice = useState<Choice>('theme-choice', () => {
    const kept = localStorage.getItem(KEY)
    return isChoice(kept) ? kept : 'system'
  })
  const system = matchMedia('(prefers-color-scheme: dark)')
  const systemDark = useState('theme-system', () => system.matches)
  if (!follows) {
    follows = true
    system.addEventListener('change', ({ matches }) => (systemDark.value = matches))
  }
  const preferred = computed(() => {
    const dark = choice.value === 'dark' || (choice.value === 'system' && systemDark.value)
    return dark ? 'night' : 'paper'
  })
  function choose(wanted: Choice): void {
    choice.value = wanted
    localStorage.setItem(KEY, wanted)
  }
  return { choice, preferred, choose }
}
