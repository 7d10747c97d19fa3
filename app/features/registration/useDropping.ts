import type { CourseCode } from '#core/ids'
import type { SheetLine } from '#shared/registration/responses'
import { dropSays } from '#shared/registration/dropTexts'

/** Courses that are to be dropped once it has been said what that does. */
export function useDropping(
  lines: Ref<readonly SheetLine[]>,
  drop: (courses: CourseCode[]) => void,
  dropWithRun: (courses: CourseCode[]) => void
) {
  const student = useStudent()
  const money = useTermMoney()
  const asked = ref<CourseCode[]>([])
  const isSeat = (line: SheetLine) => line.state === 'registered' || line.givesBack.length > 0
  /** Those that can go; with the ones that go only together. */
  const droppable = computed(() =>
    lines.value.filter((line) => line.drop && mayGo(line)).map((one) => one.course)
  )
  const mayGo = (line: SheetLine) => line.drop!.refusals.every((one) => one.code === 'neededBy')

  const says = computed(() => {
    const going = lines.value.filter((line) => asked.value.includes(line.course))
    return dropSays({
      courses: going.map(({ course, credits, drop, sections }) => ({
        course,
        credits,
        mark: drop?.mark ?? null,
        waiting: Math.max(0, ...(sections ?? []).map((one) => one.waiting))
      })),
      before: lines.value.filter(isSeat).reduce((sum, line) => sum + line.credits, 0),
      level: student.view?.student.level ?? 'undergraduate',
      money: money.backFor(new Set(asked.value))
    })
  })
  /** Of a course that another one asks for: the two go together. */
  function ask(course: CourseCode) {
    const needs = lines.value.find((line) => line.course === course)?.drop?.refusals ?? []
    const others = needs.flatMap((one) => (one.code === 'neededBy' ? [one.course] : []))
    asked.value = [course, ...others]
  }
  const answered = (act: typeof drop) => () => {
    const courses = asked.value
    asked.value = []
    act(courses)
  }
  return {
    asked,
    says,
    droppable,
    ask,
    askAll: () => (asked.value = [...droppable.value]),
    keep: () => (asked.value = []),
    confirm: answered(drop),
    wait: answered(dropWithRun)
  }
}
