/**
 * News of a student's routes, from one browser to the others that look at the same student.
 *
 * One process serves everybody, so listeners live in its memory. With several processes this is the place
 * for a broker between them.
 */
import type { StudentId } from '#core/ids'
import type { RouteNews } from '#shared/route/responses'

type Listener = (news: RouteNews) => void

const listeners = new Map<StudentId, Set<Listener>>()

/** Hears of every change until the returned function is called. */
export function listen(student: StudentId, listener: Listener): () => void {
  const here = listeners.get(student) ?? new Set()
  listeners.set(student, here)
  here.add(listener)
  return () => {
    here.delete(listener)
    if (!here.size) listeners.delete(student)
  }
}

/** Told after a change is committed. */
export function announce(student: StudentId, news: RouteNews): void {
  for (const listener of listeners.get(student) ?? []) listener(news)
}
