/** Work that is not begun again while it goes on; `busy` while it does. */
export function useOnce() {
  const busy = ref(false)
  /** @returns whether the work went through; false as well where it was going on already */
  async function once(work: () => Promise<boolean>): Promise<boolean> {
    if (busy.value) return false
    busy.value = true
    try {
      return await work()
    } finally {
      busy.value = false
    }
  }
  return { busy, once }
}
