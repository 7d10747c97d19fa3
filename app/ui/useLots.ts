import { useDebounceFn } from '@vueuse/core'

/**
 * Work that comes in lots, begun anew a moment after what it is about has changed: what an earlier turn comes to is of no
 * interest then.
 */
export function useLots<R>(isReady: () => boolean, begin: () => AsyncGenerator<readonly R[]>) {
  const found = shallowRef<readonly R[]>([])
  const problem = ref('')
  const isBusy = ref(false)

  let turn = 0
  async function work(): Promise<void> {
    const mine = ++turn
    if (!isReady()) {
      isBusy.value = false
      return
    }
    isBusy.value = true
    problem.value = ''
    const results: R[] = []
    try {
      for await (const lot of begin()) {
        if (mine !== turn) return
        results.push(...lot)
        found.value = [...results]
      }
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      if (mine === turn) problem.value = error.message
    }
    if (mine === turn) isBusy.value = false
  }
  const soon = useDebounceFn(work, 900)
  /** What it is about is another now. */
  function changed(): void {
    turn++
    isBusy.value = isReady()
    void soon()
  }
  onMounted(work)
  onScopeDispose(() => turn++)
  return { found, problem, isBusy, work, changed }
}
