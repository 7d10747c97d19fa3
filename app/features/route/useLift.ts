import type { Term } from '#core/catalog'
import { obstacles } from '#core/route'
import type { BoardCourse, BoardTerm } from './useRouteBoard'
import { obstacleText } from '#shared/route/texts'

/** A course in the hand: where it may go, where it may not and why, and putting it down by keyboard. */
export function useLift(terms: Ref<BoardTerm[]>) {
  const student = useStudent()
  const college = useCollege()
  const lifted = ref<{ course: BoardCourse; row: string; over: string }>()
  const future = computed(() => terms.value.filter((t) => t.plannable).map((t) => t.term))

  function reasonIn(course: BoardCourse, term: Term): string | undefined {
    const reading = student.reading
    if (!reading || course.taking.term === term.code) return undefined
    const found = obstacles(reading.context, course.taking.course, term)[0]
    return found && obstacleText(found, college.shortTerm(term.code))
  }
  const reasons = computed(() => {
    const found = new Map<string, string | undefined>()
    const held = lifted.value
    if (held) for (const term of future.value) found.set(term.code, reasonIn(held.course, term))
    return found
  })
  const spoken = computed(() => {
    const held = lifted.value
    if (!held) return ''
    const reason = reasons.value.get(held.over)
    return `${held.course.taking.course} over ${college.termName(held.over)}: ${reason ?? 'it may go here'}. Space puts it down, Escape leaves it where it was.`
  })

  function lift(course: BoardCourse, row: string) {
    lifted.value = { course, row, over: course.taking.term! }
  }
  function leave() {
    lifted.value = undefined
  }
  function step(by: number) {
    const held = lifted.value
    if (!held) return
    const at = future.value.findIndex((t) => t.code === held.over)
    const next = future.value[Math.min(Math.max(at + by, 0), future.value.length - 1)]
    if (next) lifted.value = { ...held, over: next.code }
  }
  async function putDown() {
    const held = lifted.value
    leave()
    if (held) await move(held.course, held.over)
  }
  async function move(course: BoardCourse, to: string) {
    const from = course.taking.term!
    const target = future.value.find((t) => t.code === to)
    if (target && from !== target.code)
      await student.changeRoute({ kind: 'move', course: course.taking.course, from, to: target.code })
  }
  async function remove({ taking: { course, credits, term }, note, locked }: BoardCourse) {
    await student.changeRoute({ kind: 'remove', planned: { course, credits, term: term!, note, locked } })
  }
  async function edit(
    { taking, note, locked }: BoardCourse,
    detail: { note?: string | null; locked?: boolean }
  ) {
    const from = { credits: taking.credits, note, locked }
    await student.changeRoute({
      kind: 'edit',
      course: taking.course,
      term: taking.term!,
      from,
      to: { ...from, ...detail }
    })
  }
  return { lifted, reasons, spoken, lift, leave, step, putDown, move, edit, remove, reasonIn, future }
}
