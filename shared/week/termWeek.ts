/** A term of a student as one draft week would have it: the seats that are held, and what is picked. */
import type { CourseCode } from '#core/ids'
import type { Section } from '#core/week'
import type { DraftWeek } from './responses'
import type { StudentRecord } from '#shared/record/responses'

export interface TermWeek {
  /** Sections of which a seat is held, with their components. */
  held: Section[]
  /** Those of them that stay. */
  staying: Section[]
  /** What is picked beside them, or instead. */
  picked: Section[]
  /** What of it is still to be had: without the sections that stay in an exchange. */
  wanted: Section[]
  /** Courses of which the seat that is held is given back for what is picked. */
  exchanged: ReadonlySet<CourseCode>
}

/** Sections of a term with the credits that were chosen for them, where they have a range; the least where none were. */
export function withChosenCredits(
  sections: readonly Section[],
  fallbacks: StudentRecord['fallbacks'],
  term: string | undefined
): Section[] {
  return sections.map((one) => {
    const [least, most] = one.creditsRange ?? []
    if (least === undefined || most === undefined) return one
    const said = fallbacks.find((line) => line.term === term && line.course === one.course)?.credits ?? least
    return { ...one, credits: Math.min(most, Math.max(least, said)) }
  })
}

/**
 * What is picked for a course of which a seat is held counts only where it was picked to exchange that seat, or where
 * other credits are chosen for it.
 */
export function termWeek(
  { held: seats, sections, fallbacks }: Pick<StudentRecord, 'held' | 'sections' | 'fallbacks'>,
  term: string | undefined,
  draft: Pick<DraftWeek, 'sections' | 'exchanges'> | undefined
): TermWeek {
  const inTerm = sections.filter((one) => one.term === term)
  const mine = seats.filter((seat) => seat.term === term)
  const codes = new Set<string>(mine.flatMap((seat) => [seat.section, ...seat.components]))
  const wanted = new Set<string>(draft?.sections ?? [])
  const chosen = withChosenCredits(inTerm, fallbacks, term)
  const creditsOf = new Map<string, number>(mine.map((seat) => [seat.section, seat.credits]))
  const held = inTerm
    .filter((one) => codes.has(one.code))
    .map((one) => (one.creditsRange ? { ...one, credits: creditsOf.get(one.code) ?? one.credits } : one))
  const picks = chosen.filter((one) => wanted.has(one.code))
  const courses = new Set(mine.map((seat) => seat.course))
  const isAnother = (course: CourseCode) => {
    const own = picks.filter((one) => one.course === course)
    return own.length > 0 && own.some((one) => !codes.has(one.code))
  }
  const exchanged = new Set((draft?.exchanges ?? []).filter((one) => courses.has(one) && isAnother(one)))
  /** The seats stay, with other credits. */
  const recredited = chosen.filter(
    (one) =>
      !exchanged.has(one.course) &&
      held.some(({ code, credits }) => code === one.code && credits !== one.credits)
  )
  const others = new Set(recredited.map((one) => one.course))
  const picked = [
    ...picks.filter((one) => !courses.has(one.course) || exchanged.has(one.course)),
    ...chosen.filter((one) => codes.has(one.code) && others.has(one.course))
  ]
  for (const course of others) exchanged.add(course)
  return {
    held,
    staying: held.filter((one) => !exchanged.has(one.course)),
    picked,
    wanted: picked.filter((one) => !codes.has(one.code)),
    exchanged
  }
}
