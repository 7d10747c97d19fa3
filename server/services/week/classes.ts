/** The classes of a student: seats that are held, and what is picked in a draft week. */
import { phaseOf } from '#core/catalog'
import type { Instant } from '#core/time'
import { dayNumber } from '#core/time'
import type { DraftWeek, StudentPicture, TermPicture } from '#wire/picture'
import type { Shelf } from '#wire/reading'
import { campusDate } from '#wire/when'
import { classCalendar, type CalendarClass } from './calendar'

/** Of the terms given: held sections, and those of the draft weeks given whose course is not held. */
function classesOf(
  picture: StudentPicture,
  shelf: Shelf,
  terms: readonly TermPicture[],
  drafts: readonly DraftWeek[]
): CalendarClass[] {
  const wanted = new Set<string>(terms.map((term) => term.code))
  const seats = new Set<string>(picture.held.map((seat) => seat.section))
  const courses = new Set(picture.held.map((seat) => `${seat.term} ${seat.course}`))
  const picked = new Set<string>(drafts.flatMap((draft) => draft.sections))
  return picture.sections.flatMap((section): CalendarClass[] => {
    if (!wanted.has(section.term)) return []
    const held = seats.has(section.code) || (section.parent !== null && seats.has(section.parent))
    if (!held && (!picked.has(section.code) || courses.has(`${section.term} ${section.course}`))) return []
    const title = shelf.catalog.maybeCourse(section.course)?.title ?? ''
    const campus = shelf.campuses.find((one) => one.code === section.campus)?.name ?? section.campus
    return [{ section, title, campus, held }]
  })
}

/** The classes of one term with one draft week, or of all terms that are not over with those gone with. */
export function calendarOfClasses(
  picture: StudentPicture,
  shelf: Shelf,
  { term, week, now }: { term?: TermPicture | undefined; week?: DraftWeek | undefined; now: Instant }
): string {
  const today = campusDate(now, shelf.zone)
  const terms = term ? [term] : shelf.terms.filter((one) => one.published && phaseOf(one, today) !== 'past')
  const drafts = week ? [week] : picture.drafts.filter((one) => one.goingWith)
  const holidays = new Set(terms.flatMap((one) => one.holidays.map(({ date }) => dayNumber(date))))
  const classes = classesOf(picture, shelf, terms, drafts)
  return classCalendar(term ? `Classes ${term.name}` : 'Classes', classes, {
    zone: shelf.zone,
    holidays,
    now
  })
}
