import { useTheme } from 'vuetify'

/** What every page stands in, the one that says an error too: the theme, and the campus clock that runs. */
export function useShell() {
  const clock = useClock()
  const theme = useTheme()
  const { preferred } = useThemeChoice()
  watchEffect(() => theme.change(preferred.value))

  let stop: (() => void) | undefined
  onMounted(() => (stop = clock.start()))
  onUnmounted(() => stop?.())
}
