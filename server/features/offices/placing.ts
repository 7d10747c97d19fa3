/**
 * Placing many students at once, by an office: proposed one after the other, each seeing the seats that those before
 * would have, and done student by student as runs, by the same decision.
 */
import { eq } from 'drizzle-orm'
import { courseCode, type CourseCode, type StudentId, type TermCode } from '#core/ids'
import { placeStudent } from '#core/placing'
import type { Placing } from '#core/registration'
import { sectionsOf, type Section } from '#core/week'
import { all, type Database, type Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { familiesOf, offerOf } from '#server/features/sections/sections'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { TermView } from '#shared/catalog/responses'
import type { CatalogContext } from '#shared/catalog/context'
import type { StudentRecord } from '#shared/record/responses'
import type { PlacingGround, PlacingPiece, PlacingSection, ProposedPlacing } from '#shared/offices/placing'
import type { Placement, PlacingAsked } from '#shared/offices/placingRequests'
import { waitingIn } from '#shared/registration/registering'
import type { Receipt } from '#shared/registration/responses'
import { instantText } from '#shared/when'
import { factsWith } from '#server/features/registration/facts'
import { run } from '#server/features/registration/run'
import { blockRows, membersOf, mustTakePlacing, type PlacingTime } from './placingGroups'

/** Records are read so many at a time: nobody else waits longer than for these. */
const AT_ONCE = 20
/** What is proposed by then is answered, and the rest when it is asked for. */
const MOST_MS = 1500

/** Proposes sections for the next students of a group, as far as it gets in a while. @throws Refused */
export async function proposePlacing(
  db: Database,
  code: TermCode,
  { group, setAside, from, taken: before }: PlacingAsked,
  at: PlacingTime
): Promise<PlacingPiece> {
  mustTakePlacing(code, at)
  const members = await membersOf(db, code, group)
  const block = group.kind === 'block' ? await blockRows(db, code, group.block) : undefined
  const ofBlock = block?.map((row) => courseCode(row.course))
  const about = { code, placing: { setAside: new Set(setAside) }, ...at }
  const taken = new Map(Object.entries(before))
  const students: ProposedPlacing[] = []
  const sections = new Map<string, PlacingSection>()
  const ends = performance.now() + MOST_MS
  let next = from
  while (next < members.length && (next === from || performance.now() < ends)) {
    const some = members.slice(next, next + AT_ONCE)
    const records = new Map(
      (await readStudentRecords(db, some, 'registrar')).map((one) => [one.student.id, one])
    )
    const wanted = new Map([...records].map(([id, record]) => [id, wantedBy(record, code, ofBlock)]))
    const courses = new Set([...wanted.values()].flatMap((one) => one.courses))
    const offer = (await offerOf(db, code, [...courses])).filter(
      (one) => !block || one.block === block[0]?.title
    )
    for (const student of some.filter((one) => records.has(one))) {
      const left = offer.map((one) => ({ ...one, taken: one.taken + (taken.get(one.code) ?? 0) }))
      const proposed = proposeFor(records.get(student)!, wanted.get(student)!, left, about)
      students.push(proposed)
      for (const one of proposed.placed.flatMap((course) => course.sections)) {
        const { course, capacity, taken: seats } = offer.find((other) => other.code === one.code)!
        sections.set(one.code, { ...one, course, capacity, taken: seats })
        taken.set(one.code, (taken.get(one.code) ?? 0) + 1)
      }
    }
    next += some.length
  }
  return {
    of: members.length,
    next: next < members.length ? next : null,
    students,
    sections: [...sections.values()],
    taken: Object.fromEntries(taken)
  }
}

/** What is proposed for one student, of an offer with the seats that are left then. */
function proposeFor(
  record: StudentRecord,
  { courses, ground }: Wanted,
  left: readonly Section[],
  { code, placing, catalogContext, now }: PlacingTime & { code: TermCode; placing: Placing }
): ProposedPlacing {
  const offer = left.filter((one) => courses.includes(one.course))
  const facts = factsWith(record, catalogContext, { term: code, now, offer, placing })
  const found = placeStudent(facts, { courses, offer, ...hoursOf(record, catalogContext) })
  const { id, name, number } = record.student
  return {
    ...{ student: id, name, number, ground, left: found.left },
    placed: found.options.map((option) => ({
      ...{ course: option.course, credits: option.main.credits },
      sections: sectionsOf(option).map(({ code, number }) => ({ code, number }))
    }))
  }
}

interface Wanted {
  courses: CourseCode[]
  ground: PlacingGround
}

/**
 * The courses in which a student is to be placed, without those of which a seat is held or waited for: those of a block, or
 * what was handed in, or else what is planned.
 */
function wantedBy(record: StudentRecord, code: TermCode, ofBlock: readonly CourseCode[] | undefined): Wanted {
  const meant = record.intentions.find((one) => one.term === code)?.courses
  const planned = record.route.courses.filter((one) => one.term === code).map((one) => one.course)
  const waiting = waitingIn(record, code)
  const isSettled = (course: CourseCode) =>
    waiting.has(course) || record.held.some((seat) => seat.term === code && seat.course === course)
  return {
    courses: (ofBlock ?? meant ?? planned).filter((course) => !isSettled(course)),
    ground: ofBlock ? 'block' : meant ? 'handedIn' : 'planned'
  }
}

/** Hours that a student keeps free, and the ways between the campuses. */
const hoursOf = ({ keepFree }: StudentRecord, { travel }: CatalogContext) => ({
  kept: keepFree.filter((one) => one.hard),
  softly: keepFree.filter((one) => !one.hard),
  travel: (from: string, to: string) => travel.find((one) => one.from === from && one.to === to)?.minutes
})

/**
 * Registers a student in sections that an office chose, as one run with its receipt; the seats are the office's to take
 * back.
 *
 * @throws Refused where the sections are not of the term, or nothing says that the student wants them
 */
export async function place(
  db: Database,
  who: Who,
  student: StudentId,
  asked: Placement & { key?: string | undefined },
  at: PlacingTime
): Promise<Receipt> {
  const { sections, setAside, key } = asked
  const term = mustTakePlacing(asked.term, at)
  const courses = mustBeOfTerm(await familiesOf(db, sections), sections, term)
  const consent = asked.consent ?? (await saidByHandingIn(db, student, term, courses, at.catalogContext.zone))
  if (consent === undefined)
    throw new Refused(422, 'consent', 'Say how the student agreed to it.', [
      { field: 'consent', message: 'is needed for courses that the student did not hand in' }
    ])
  return run(
    db,
    who,
    student,
    { term: term.code, courses, consent, key, placing: { sections, setAside } },
    at.catalogContext
  )
}

/** The courses of sections, one section of each with its components. @throws Refused */
function mustBeOfTerm(
  offer: readonly Section[],
  codes: readonly string[],
  { code, name }: TermView
): CourseCode[] {
  const strange = codes.find((one) => !offer.some((other) => other.code === one && other.term === code))
  if (strange)
    throw new Refused(422, 'noOption', `${name} has no section ${strange}.`, [
      { field: 'sections', message: `has to be sections of ${name}` }
    ])
  const courses = offer
    .filter((one) => one.parent === null && codes.includes(one.code))
    .map((one) => one.course)
  const without = offer.find((one) => codes.includes(one.code) && !courses.includes(one.course))
  if (without || new Set(courses).size < courses.length)
    throw new Refused(422, 'noOption', 'Of each course one section is needed, and not two.', [
      { field: 'sections', message: 'has to be one section of each course, with its components' }
    ])
  return courses
}

/** How the handing in says that the student wants these courses; undefined where it does not. */
async function saidByHandingIn(
  db: Reader,
  student: StudentId,
  { code, name }: TermView,
  courses: readonly CourseCode[],
  zone: string
): Promise<string | undefined> {
  const rows = await db
    .select({ course: t.course.code, at: t.intention.at })
    .from(t.intention)
    .innerJoin(t.course, eq(t.course.id, t.intention.courseId))
    .innerJoin(t.term, eq(t.term.id, t.intention.termId))
    .where(all(eq(t.intention.studentId, student), eq(t.term.code, code)))
  const meant = new Set<string>(rows.map((row) => row.course))
  if (!courses.every((course) => meant.has(course))) return undefined
  return `Handed in for ${name}, ${instantText(rows[0]!.at.getTime(), zone)}.`
}
