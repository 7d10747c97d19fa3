/** What students plan: routes, draft weeks with what is picked for them, times kept free. */
import { parseDayLetters } from '#core/formats'
import { minutes } from '#core/time'
import type { AsPicked } from '#core/week'
import * as t from '#server/db/schema/index'
import { acceptedBy } from '../agreement'
import { courses } from '../catalog'
import { campusTime, terms } from '../college'
import { datesOf, type DemoSection } from '../offer'
import type { Put } from './numbers'
import type { World } from './world'

export async function writeRoutes(put: Put, world: World) {
  const { students, numbers } = world
  const { courseId, termId } = numbers
  const changedAt = campusTime('2027-04-07T18:30')
  await put(
    t.route,
    students.map((s) => ({
      id: s.id,
      studentId: s.id,
      name: s.routeName,
      chosen: true,
      changedAt,
      changedBy: s.id
    }))
  )
  await put(
    t.plannedCourse,
    students.flatMap((s) =>
      s.planned.map((p) => ({
        routeId: s.id,
        courseId: courseId.get(p.course),
        termId: termId.get(p.term),
        credits: courses[courseId.get(p.course)! - 1]!.credits
      }))
    )
  )
  await put(t.agreement, acceptedBy(students, terms, termId))
  await writeWeeks(put, world)
  await put(
    t.keepFree,
    students.flatMap((s) =>
      s.keepFree.map(({ name, days, start, end, hard }) => ({
        studentId: s.id,
        name,
        days,
        startsMin: minutes(start),
        endsMin: minutes(end),
        hard
      }))
    )
  )
}

async function writeWeeks(put: Put, { students, offer, numbers: { termId } }: World) {
  const drafts = students.flatMap((s) =>
    s.drafts.map((draft, i) => ({ ...draft, student: s.id, goingWith: i === 0 }))
  )
  await put(
    t.draftWeek,
    drafts.map(({ name, student, goingWith }, i) => ({
      id: i + 1,
      studentId: student,
      termId: termId.get('AU27'),
      name,
      goingWith: goingWith || null
    }))
  )
  await put(
    t.pickedSection,
    drafts.flatMap((draft, i) =>
      draft.picks.flatMap(({ course, numbers, was }) =>
        numbers.map((number) => {
          const section = offer.sections.find(
            (x) => x.term === 'AU27' && x.course === course && x.number === number
          )!
          return {
            draftWeekId: i + 1,
            sectionId: section.id,
            asPicked: was && asPickedAt(section, was)
          }
        })
      )
    )
  )
}

function asPickedAt(
  section: DemoSection,
  { days, start, end }: { days: string; start: string; end: string }
): AsPicked {
  const { fromOn, toOn } = datesOf(section)
  const hours = { days: parseDayLetters(days)!, start: minutes(start), end: minutes(end) }
  return { left: section.capacity, meetings: [{ ...hours, from: fromOn, to: toOn, campus: section.campus }] }
}
