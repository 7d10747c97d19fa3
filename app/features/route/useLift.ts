import type { Term } from '#core/catalog'
import { blockers } from '#core/route'
import type { BoardTerm } from './useBoardTerms'
import type { BoardCourse } from './useRouteBoard'
import { blockerText } from '#shared/route/texts'

/** What is changed of a course where it stands. */
function useCourseChanges() {
  const routeChanges = useRouteChanges()
  async function remove({ attempt: { course, credits, term }, note, locked }: BoardCourse) {
    await routeChanges.changeRoute({
      kind: 'remove',
      planned: { course, credits, term: term!, note, locked }
    })
  }
  async function edit(
    { attempt, note, locked }: BoardCourse,
    detail: { note?: string | null; locked?: boolean }
  ) {
    const from = { credits: attempt.credits, note, locked }
    await routeChanges.changeRoute({
      kind: 'edit',
      course: attempt.course,
      term: attempt.term!,
      from,
      to: { ...from, ...detail }
    })
  }
  return { edit, remove }
}

/** Why a course may not stand in a term; undefined where it may. */
function reasonIn(course: BoardCourse, term: Term): string | undefined {
  const { reading } = useStudent()
  if (!reading || course.attempt.term === term.code) return undefined
  const found = blockers(reading.context, course.attempt.course, term)[0]
  return found && blockerText(found, useCollege().shortTerm(term.code))
}

/** A course in the hand: where it may go, where it may not and why, and putting it down by keyboard. */
export function useLift(terms: Ref<BoardTerm[]>) {
  const routeChanges = useRouteChanges()
  const college = useCollege()
  const lifted = ref<{ course: BoardCourse; row: string; over: string }>()
  const future = computed(() => terms.value.filter((t) => t.plannable).map((t) => t.term))

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
    return `${held.course.attempt.course} over ${college.termName(held.over)}: ${reason ?? 'it may go here'}. Space puts it down, Escape leaves it where it was.`
  })

  function lift(course: BoardCourse, row: string) {
    lifted.value = { course, row, over: course.attempt.term! }
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
    const from = course.attempt.term!
    const target = future.value.find((t) => t.code === to)
    if (target && from !== target.code)
      await routeChanges.changeRoute({ kind: 'move', course: course.attempt.course, from, to: target.code })
  }
  return {
    lifted,
    reasons,
    spoken,
    lift,
    leave,
    step,
    putDown,
    move,
    ...useCourseChanges(),
    reasonIn,
    future
  }
}
