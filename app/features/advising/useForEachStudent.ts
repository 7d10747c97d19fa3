import type { DeskRow } from '#shared/advising/responses'

/** The same for several students, each by itself: what one refuses keeps nobody else from it. */
export function useForEachStudent() {
  const staff = useStaff()
  const notice = useNotice()
  const busy = ref(false)

  /** @returns those for whom it went through */
  async function forEach(
    rows: readonly DeskRow[],
    work: (row: DeskRow) => Promise<unknown>
  ): Promise<DeskRow[]> {
    const done: DeskRow[] = []
    busy.value = true
    for (const row of rows)
      try {
        await work(row)
        done.push(row)
      } catch (error) {
        if (!(error instanceof Failure)) throw error
        notice.say(`${row.name}: ${error.message}`)
      }
    busy.value = false
    await staff.load()
    return done
  }
  return { busy, forEach }
}
