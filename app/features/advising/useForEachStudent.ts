import type { DeskRow } from '#shared/advising/responses'

/** The same for several students, some of them left out, each by itself: what one refuses keeps nobody else from it. */
export function useForEachStudent(rows: () => readonly DeskRow[]) {
  const staff = useStaff()
  const notice = useNotice()
  const busy = ref(false)
  const leftOut = ref(new Set<number>())
  const chosen = computed(() => rows().filter((row) => !leftOut.value.has(row.id)))
  function choose({ id }: DeskRow, isChosen: boolean): void {
    const next = new Set(leftOut.value)
    if (isChosen) next.delete(id)
    else next.add(id)
    leftOut.value = next
  }
  const chooseAll = () => (leftOut.value = new Set())

  /** @returns those for whom it went through */
  async function forEach(
    of: readonly DeskRow[],
    work: (row: DeskRow) => Promise<unknown>
  ): Promise<DeskRow[]> {
    const done: DeskRow[] = []
    busy.value = true
    for (const row of of)
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
  return { busy, forEach, leftOut, chosen, choose, chooseAll }
}
