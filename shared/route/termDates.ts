/** Dates of the terms a student has before them: when they begin and end, what has to be done until when. */
import type { Instant, IsoDate } from '#core/time'
import type { StudentRecord } from '#shared/record/responses'
import type { TermView } from '#shared/catalog/responses'
import type { CatalogContext } from '#shared/catalog/context'
import { dayMonth } from '#shared/when'

export type TermDate = {
  /** The same from one file to the next, so that a calendar replaces what it has. */
  uid: string
  title: string
} & ({ on: IsoDate } | { at: Instant })

/** Of published terms that are not over, and of further ones in which something is planned; in order of term. */
export function termDates(
  student: Pick<StudentRecord, 'route' | 'openings'>,
  catalogContext: Pick<CatalogContext, 'terms'>,
  today: IsoDate
): TermDate[] {
  const planned = new Set(student.route.courses.map((one) => one.term))
  const terms = catalogContext.terms.filter(
    (term) => term.end >= today && (term.published || planned.has(term.code))
  )
  return terms.flatMap((term) => {
    const opening = term.published && student.openings.find((one) => one.term === term.code)
    return [
      ...(opening
        ? [
            {
              uid: `${term.code}-opening@ridgeway`,
              title: `Registration for ${term.name} opens for you`,
              at: opening.opens
            }
          ]
        : []),
      ...datesOfTerm(term)
    ]
  })
}

/** The dates of a term that are the same for everybody: of one that is not published, those of its classes alone. */
export function datesOfTerm(term: TermView): TermDate[] {
  const uid = (what: string) => `${term.code}-${what}@ridgeway`
  const parts = term.sessions.filter((session) => session.half !== 'full')
  const dates: TermDate[] = [
    { uid: uid('begins'), title: `${term.name} begins`, on: term.start },
    ...parts.map((session) => ({
      uid: uid(`begins-${session.code}`),
      title: `${term.name}: ${session.name} begins, until ${dayMonth(session.end)}`,
      on: session.start
    })),
    ...term.holidays.map((holiday) => ({
      uid: uid(`free-${holiday.date}`),
      title: `${holiday.name}, no classes`,
      on: holiday.date
    })),
    { uid: uid('ends'), title: `${term.name} ends`, on: term.end }
  ]
  if (!term.published) return dates
  return [
    ...dates,
    { uid: uid('payment'), title: `${term.name}: payment is due`, on: term.paymentDueOn },
    { uid: uid('add'), title: `${term.name}: last moment to add a course`, at: term.addEndsAt },
    { uid: uid('drop'), title: `${term.name}: last moment to drop a course`, at: term.dropEndsAt }
  ]
}
