/** The classes of a student: seats that are held, and what is picked in a draft week. */
import { phaseOf } from '#core/catalog'
import type { Instant } from '#core/time'
import { dayNumber } from '#core/time'
import type { DraftWeek } from '#shared/week/responses'
import type { StudentRecord } from '#shared/record/responses'
import type { TermView } from '#shared/catalog/responses'
import { goingWith } from '#shared/reading'
import type { CatalogContext } from '#shared/catalog/context'
import { termWeek } from '#shared/week/termWeek'
import { campusDate } from '#shared/when'
import { classCalendar, type CalendarAppointment, type CalendarClass } from './calendar'

/** Of a term: the seats that stay with the draft week, and what is picked in it. */
function classesOf(
  studentRecord: StudentRecord,
  catalogContext: CatalogContext,
  term: string,
  draft: DraftWeek | undefined
): CalendarClass[] {
  const { staying, picked } = termWeek(studentRecord, term, draft)
  return [...staying, ...picked].map((section) => ({
    section,
    title: catalogContext.catalog.maybeCourse(section.course)?.title ?? '',
    campus:
      section.offSite ??
      catalogContext.campuses.find((one) => one.code === section.campus)?.name ??
      section.campus,
    held: staying.includes(section)
  }))
}

/**
 * The classes of one term with one draft week, or of all terms that are not over with those gone with: then a seat
 * stands there until it is exchanged.
 */
export function calendarOfClasses(
  studentRecord: StudentRecord,
  catalogContext: CatalogContext,
  {
    term,
    week,
    now,
    appointments = []
  }: {
    term?: TermView | undefined
    week?: DraftWeek | undefined
    now: Instant
    appointments?: readonly CalendarAppointment[]
  }
): string {
  const today = campusDate(now, catalogContext.zone)
  const terms = term
    ? [term]
    : catalogContext.terms.filter((one) => one.published && phaseOf(one, today) !== 'past')
  const holidays = new Set(terms.flatMap((one) => one.holidays.map(({ date }) => dayNumber(date))))
  const classes = terms.flatMap(({ code }) => {
    const going = goingWith(studentRecord, code)
    return classesOf(studentRecord, catalogContext, code, term ? week : going && { ...going, exchanges: [] })
  })
  return classCalendar(term ? `Classes ${term.name}` : 'Classes', classes, {
    zone: catalogContext.zone,
    holidays,
    now,
    appointments
  })
}
