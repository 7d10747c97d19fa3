/** An advisor's desk: whom they advise, and who of them needs what. */
import { officeTerm } from '#core/calendar'
import type { TermCode } from '#core/ids'
import { paceOf, programPace } from '#core/route'
import type { Instant } from '#core/time'
import type { Desk, DeskRow } from '#shared/advising/responses'
import type { StudentRecord } from '#shared/record/responses'
import type { Who } from '#shared/accounts/responses'
import { inOrderOfNeed } from '#shared/advising/desk'
import { isOverdue } from '#shared/advising/talk'
import { holdsFor } from '#shared/charges/balance'
import { momentOf, termOf, type CatalogContext } from '#shared/catalog/context'
import { neededOf } from '#shared/degree/figures'
import { signOffPolicyOf } from '#shared/advising/review'
import { hasChanged, sinceSignOff } from '#shared/advising/signOff'
import type { Database } from '#server/db/connect'
import { advisedBy } from './advisedBy'
import { readDeskViews } from './deskViews'
import { deskReadings, type DeskReading } from './deskReadings'
import { countUnread, spokenWith } from './talk'
import { readStudentRecords } from '#server/features/record/studentRecords'

/** Students of an advisor, those who need one first. */
export async function readDesk(
  db: Database,
  who: Who,
  catalogContext: CatalogContext,
  now: Instant
): Promise<Desk> {
  const rows = await advisedBy(db, who.id)
  const term = officeTerm(catalogContext.terms, momentOf(now, catalogContext.zone))!.code
  const purposes = new Map(rows.map((row) => [row.student as number, row]))
  const ids = [...purposes.keys()]
  const [studentRecords, unread, spoken] = await Promise.all([
    readStudentRecords(db, ids, 'programAdvisor'),
    countUnread(db, ids, who.id),
    spokenWith(db, ids)
  ])
  const readings = await deskReadings(db, studentRecords, catalogContext, now)
  const desk = studentRecords.map((studentRecord, i) => ({
    ...deskRow(studentRecord, readings[i]!, purposes.get(studentRecord.student.id)!.purpose, term, {
      who,
      catalogContext,
      now
    }),
    standsInFor: purposes.get(studentRecord.student.id)!.standsInFor,
    unread: unread.get(studentRecord.student.id) ?? 0,
    spoken: spoken.has(studentRecord.student.id)
  }))
  return { term, rows: inOrderOfNeed(desk, now), views: await readDeskViews(db, who.id) }
}

function deskRow(
  studentRecord: StudentRecord,
  reading: DeskReading,
  purpose: DeskRow['purpose'],
  term: TermCode,
  { who, catalogContext, now }: { who: Who; catalogContext: CatalogContext; now: Instant }
): Omit<DeskRow, 'unread' | 'spoken' | 'standsInFor'> {
  const since = sinceSignOff(studentRecord, term, now)
  const policy = signOffPolicyOf(studentRecord, termOf(catalogContext, term))
  const isLost = policy === 'anew' && hasChanged(since)
  const { programs, findings, outside } = reading.figures
  const standing = reading.standings.find((one) => one.term.code === term)!
  const inTerm = [...studentRecord.route.courses, ...studentRecord.held].filter((one) => one.term === term)
  return {
    id: studentRecord.student.id,
    name: studentRecord.student.name,
    programs: studentRecord.programs.map((p) => p.spec.shortTitle).join(', '),
    standing: studentRecord.student.standing,
    attendance: studentRecord.student.attendance,
    purpose,
    reviews: studentRecord.reviews
      .filter((one) => !one.answer)
      .map((one) => ({ term: one.term, askedAt: one.askedAt }))
      .sort((a, b) => a.askedAt - b.askedAt),
    overdue: studentRecord.agreed.filter((one) => isOverdue(one, reading.today)).length,
    requestsAsked:
      purpose === 'program'
        ? studentRecord.requests.filter((one) => one.state === 'asked' && one.waitsFor === 'programAdvisor')
            .length
        : 0,
    offerUntil: studentRecord.offers.reduce<number | null>(
      (first, one) => Math.min(first ?? Infinity, one.until),
      null
    ),
    late: reading.late,
    signedOffAt: since?.signOff.at ?? null,
    changedSince: hasChanged(since),
    isBarred: policy !== 'none' && (!since || isLost),
    together: since?.signOff.by === who.name ? since.signOff.together : null,
    planned: new Set(inTerm.map((one) => one.course)).size,
    findings,
    outside,
    needed: neededOf(reading.figures),
    holds: holdsFor(studentRecord, catalogContext.terms, standing.term, reading.today).filter(
      (hold) => hold.stopsRegistration
    ).length,
    opens: standing.opens,
    adding: standing.adding,
    climb: climbShown(studentRecord, reading, catalogContext, programs[0]?.credits ?? 0)
  }
}

function climbShown(
  { programs, carry: { target: aim } }: StudentRecord,
  { climb, today }: DeskReading,
  { terms }: CatalogContext,
  goal: number
): DeskRow['climb'] {
  const length = programs[0]?.spec.suggested?.length
  return {
    goal,
    points: climb.points.map((p) => ({ reached: p.reached, ahead: p.status === 'ahead' })),
    pace: paceOf(climb, { goal, length, terms, aim, isOver: (one) => one.end < today }),
    usual: programPace(goal, length),
    aim
  }
}
