import type { ClockView } from '#shared/responses'

const SYNC_MS = 30_000

/** The campus clock as the server tells it, ticking on here between two answers. */
export const useClock = defineStore('clock', () => {
  const mode = ref<ClockView['mode']>('real')
  const said = ref(0)
  const heard = ref(0)
  const tick = ref(0)

  const now = computed(() =>
    mode.value === 'standing' ? said.value : said.value + (tick.value - heard.value)
  )

  /** The minute that is running: what is said to the minute asks this one, and is worked out once a minute. */
  const minute = computed(() => Math.floor(now.value / 60_000) * 60_000)

  function take(clock: ClockView): void {
    mode.value = clock.mode
    said.value = clock.now
    heard.value = tick.value = performance.now()
  }

  let asking: Promise<void> | undefined
  /** Asks the server; several who want to know at once ask together. */
  function sync(): Promise<void> {
    asking ??= api<ClockView>('/api/clock')
      .then(take)
      .finally(() => (asking = undefined))
    return asking
  }

  async function set(body: { mode: ClockView['mode']; at?: string }): Promise<void> {
    take(await api<ClockView>('/api/clock', { method: 'POST', body }))
  }

  /** Ticks every second and asks the server now and then. Returns what stops it. */
  function start(): () => void {
    const ticking = setInterval(() => (tick.value = performance.now()), 1000)
    // A missed answer does no harm: the clock ticks on, and the next one sets it right.
    const syncing = setInterval(() => sync().catch(() => undefined), SYNC_MS)
    return () => {
      clearInterval(ticking)
      clearInterval(syncing)
    }
  }

  const follow = persistently(sync)
  useNews().onNews(({ kind }) => kind === 'clock' && follow())
  useNews().onMissed(follow)

  return { mode, now, minute, sync, set, start }
})
