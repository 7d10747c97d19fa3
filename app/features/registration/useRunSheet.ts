import type { CourseCode } from '#core/ids'
import { inOrder, preparedOf, type PreparedSheet } from '#shared/registration/prepared'
import type { RunSheet, SheetLine } from '#shared/registration/responses'

/** The sheet as the server judges it: read again when anything that it rests on has changed. */
function useJudgedSheet() {
  const student = useStudent()
  const clock = useClock()
  const standing = useStanding()
  const {
    known: sheet,
    failure,
    read
  } = useRead(() =>
    api<RunSheet>(`/api/students/${student.view!.student.id}/sheet`, { query: { term: standing.term!.code } })
  )
  const load = async () => void (standing.term && (await read()))
  const opened = computed(() => {
    const opens = sheet.value?.opens
    return typeof opens === 'number' && clock.now >= opens
  })
  // A change that is shown at once is judged by the server only once it has been sent.
  const unsent = computed(() => student.onTheWay?.pending.length ?? 0)
  watch([() => standing.term?.code, () => student.view, opened, unsent], load, { immediate: true })
  watch(useSeatsOn(sheet), (_, before) => before && load())

  const closed = computed(() => sheet.value !== undefined && clock.now >= sheet.value.closes)
  return { sheet, failure, load, opened, closed }
}

/** Refused as things stand, with a place in line as the first that can be had instead. */
const waitsFor = ({ refusals, fallbacks, line }: SheetLine) =>
  refusals.length > 0 &&
  fallbacks.find((one) => one.fallback.kind === 'line' || !one.refusals.length)?.fallback.kind === 'line' &&
  line?.refusals.length === 0
const creditsOf = (list: readonly { credits: number }[]) => list.reduce((sum, line) => sum + line.credits, 0)

/** The run sheet of the term on screen, as the server judges it, and what of it is chosen. */
export function useRunSheet() {
  const student = useStudent()
  const sheetChanges = useSheetChanges()
  const standing = useStanding()

  const { sheet, failure, load, opened, closed } = useJudgedSheet()
  /** As the student has prepared it; the server keeps it. */
  const prepared = computed(() => preparedOf(student.view?.prepared ?? [], standing.term!.code))
  const prepare = (said: Partial<PreparedSheet>) => void sheetChanges.prepare({ ...prepared.value, ...said })
  const lines = computed(() => {
    const all = sheet.value?.lines ?? []
    const ordered = inOrder(
      all.filter((line) => line.state === 'ready'),
      prepared.value.order
    ).values()
    return all.map((line) => (line.state === 'ready' ? ordered.next().value! : line))
  })
  const registered = computed(() =>
    lines.value.filter((line) => line.state === 'registered' || line.givesBack.length)
  )
  const ready = computed(() => lines.value.filter((line) => line.state === 'ready'))
  /** Courses that are ready and not to be registered by the next run. */
  const left = computed(() => new Set(prepared.value.leftOut))
  /** Once adding has ended, only what a permission lets in still. */
  const isOpen = (line: SheetLine) => !closed.value || line.setAside.includes('late')
  const chosen = computed(() => ready.value.filter((line) => isOpen(line) && !left.value.has(line.course)))
  /** What is given back before anything else by the next run. */
  const drops = computed(
    () =>
      new Set(
        lines.value
          .filter((line) => line.state === 'registered' && prepared.value.drops.includes(line.course))
          .map((line) => line.course)
      )
  )
  const credits = computed(() => {
    const added = chosen.value.filter((line) => !waitsFor(line))
    const gone = new Set([
      ...(closed.value ? [] : drops.value),
      ...added.flatMap((line) => [line.course, line.givesUp])
    ])
    return creditsOf(standing.heldSections.filter((one) => !gone.has(one.course))) + creditsOf(added)
  })
  function toggle(course: CourseCode) {
    const next = new Set(left.value)
    if (!next.delete(course)) next.add(course)
    prepare({ leftOut: [...next] })
  }
  const inLine = computed(() => chosen.value.filter(waitsFor))
  return {
    ...{ sheet, failure, load, opened, closed },
    ...{ lines, registered, ready, prepared, prepare, left, chosen, inLine, drops, credits, toggle }
  }
}

/** The seats of what stands on the sheet, as they are told. */
function useSeatsOn(sheet: Ref<RunSheet | undefined>) {
  const standing = useStanding()
  const offers = useOffers()
  return computed(() => {
    const wanted = new Set(
      (sheet.value?.lines ?? []).flatMap((line) => (line.sections ?? []).map((one) => one.code))
    )
    return (offers.byTerm.get(standing.term?.code ?? '')?.sections ?? [])
      .filter((one) => wanted.has(one.code))
      .map(({ code, capacity, taken, waiting, reserved }) =>
        [code, capacity, taken, waiting, ...reserved.map(({ left }) => left)].join(' ')
      )
      .join()
  })
}
