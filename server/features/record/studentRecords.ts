/** Students as their screens see them: read in one sweep, whether for one student or a whole desk. */
import type { ExceptionGrant, PlannedCourse, RecordEntry } from '#core/degree'
import { courseCode, studentId, termCode, type SectionCode } from '#core/ids'
import { openingFor } from '#core/registration'
import type { Section } from '#core/week'
import { all, type Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import { readAccounts } from '#server/features/charges/ledger'
import { programSpec } from '#server/features/catalog/catalog'
import { readOpenings } from '#server/features/registration/openings'
import { sectionsByCode } from '#server/features/sections/sections'
import { keepFreeOf } from '#server/features/week/habits'
import type { HeldWithParts, StudentRecord } from '#shared/record/responses'
import {
  programRows,
  exceptionRows,
  waiverRows,
  recordRows,
  heldRows,
  waitingRows,
  offerRows,
  fallbackRows,
  preparedRows,
  advisorRows,
  routeRows,
  plannedRows,
  draftRows,
  signOffRows,
  messageRows,
  permittedRows
} from './queries'
import { asc, eq, inArray, isNull } from 'drizzle-orm'

/** Pictures of students, in the order of their ids; `relation` is how the reader stands to them. */
export async function readStudentRecords(
  db: Reader,
  ids: readonly number[],
  relation: StudentRecord['relation']
): Promise<StudentRecord[]> {
  if (!ids.length) return []
  const wanted = [...ids]
  const students = await db
    .select({
      student: t.student,
      name: t.account.name,
      campus: t.campus.code,
      block: t.block.title,
      blockCode: t.block.code,
      aim: t.term.code
    })
    .from(t.student)
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .innerJoin(t.campus, eq(t.campus.id, t.student.homeCampusId))
    .leftJoin(t.block, eq(t.block.id, t.student.blockId))
    .leftJoin(t.term, eq(t.term.id, t.student.aimTermId))
    .where(inArray(t.student.id, wanted))
    .orderBy(asc(t.student.id))
  const programs = groupBy(await programRows(db, wanted), (row) => row.studentId)
  const tests = groupBy(
    await db.select().from(t.testScore).where(inArray(t.testScore.studentId, wanted)),
    (row) => row.studentId
  )
  const milestones = groupBy(
    await db.select().from(t.milestone).where(inArray(t.milestone.studentId, wanted)),
    (row) => row.studentId
  )
  const exceptions = groupBy(await exceptionRows(db, wanted), (row) => row.grant.studentId)
  const waivers = groupBy(await waiverRows(db, wanted), (row) => row.waiver.studentId)
  const record = groupBy(await recordRows(db, wanted), (row) => row.studentId)
  const held = groupBy(await heldRows(db, wanted), (row) => row.studentId)
  const waiting = groupBy(await waitingRows(db, wanted), (row) => row.studentId)
  const offers = groupBy(await offerRows(db, wanted), (row) => row.offer.studentId)
  const fallbacks = groupBy(await fallbackRows(db, wanted), (row) => row.studentId)
  const prepared = groupBy(await preparedRows(db, wanted), (row) => row.sheet.studentId)
  const holds = groupBy(
    await db
      .select()
      .from(t.hold)
      .where(all(inArray(t.hold.studentId, wanted), isNull(t.hold.liftedAt))),
    (row) => row.studentId
  )
  const advisors = groupBy(await advisorRows(db, wanted), (row) => row.studentId)
  const routes = groupBy(await routeRows(db, wanted), (row) => row.route.studentId)
  const routeIds = [...routes.values()].flat().map((row) => row.route.id)
  const planned = groupBy(routeIds.length ? await plannedRows(db, routeIds) : [], (row) => row.routeId)
  const carried = groupBy(
    await db
      .select({ own: t.studentTerm, term: t.term.code })
      .from(t.studentTerm)
      .innerJoin(t.term, eq(t.term.id, t.studentTerm.termId))
      .where(inArray(t.studentTerm.studentId, wanted)),
    (row) => row.own.studentId
  )
  const drafts = groupBy(await draftRows(db, wanted), (row) => row.studentId)
  const signOffs = groupBy(await signOffRows(db, wanted), (row) => row.studentId)
  const messages = groupBy(await messageRows(db, wanted), (row) => row.studentId)
  const keepFree = groupBy(
    await db
      .select()
      .from(t.keepFree)
      .where(inArray(t.keepFree.studentId, wanted))
      .orderBy(asc(t.keepFree.id)),
    (row) => row.studentId
  )
  const permitted = groupBy(await permittedRows(db, wanted), (row) => row.studentId)
  const accounts = await readAccounts(db, wanted)
  const openings = await readOpenings(db)

  const codes = new Set<SectionCode>()
  for (const rows of held.values())
    for (const row of rows) if (row.published) codes.add(row.section as SectionCode)
  for (const rows of drafts.values())
    for (const row of rows) if (row.section) codes.add(row.section as SectionCode)
  const linesOf = (student: number): SectionCode[] => [
    ...(waiting.get(student) ?? []).flatMap((row) => [row.section, ...row.sections] as SectionCode[]),
    ...(offers.get(student) ?? []).flatMap((row) => row.offer.sections as SectionCode[]),
    ...(fallbacks.get(student) ?? []).flatMap((row) =>
      row.list.flatMap((one) => (one.kind === 'sections' ? one.sections : []))
    )
  ]
  for (const { student } of students) for (const code of linesOf(student.id)) codes.add(code)
  const sections = new Map<string, Section>((await sectionsByCode(db, [...codes])).map((s) => [s.code, s]))

  return students.map(({ student: s, name, campus, block, blockCode, aim }): StudentRecord => {
    const own = programs.get(s.id) ?? []
    const seats = (held.get(s.id) ?? []).filter((row) => row.parent === null)
    const route = routes.get(s.id)?.[0]
    const mine = new Set<string>()
    for (const row of held.get(s.id) ?? []) mine.add(row.section)
    for (const row of drafts.get(s.id) ?? []) if (row.section) mine.add(row.section)
    for (const code of linesOf(s.id)) mine.add(code)
    const person = { id: s.id, standing: s.standing, programs: own.map((p) => p.code), block: blockCode }
    const terms = [...new Set(openings.map((o) => o.term))]
    return {
      student: {
        id: studentId(s.id),
        name,
        number: s.number,
        standing: s.standing,
        level: s.level,
        residency: s.residency,
        campus,
        block,
        attendance: s.attendance
      },
      relation,
      programs: own.map(({ confirmed, saidInstead, ...row }) => ({
        spec: programSpec(row),
        confirmed,
        saidInstead
      })),
      tests: Object.fromEntries((tests.get(s.id) ?? []).map((row) => [row.test, row.score])),
      milestones: (milestones.get(s.id) ?? []).map((row) => row.condition),
      exceptions: (exceptions.get(s.id) ?? []).map(({ grant, program, course, by }): ExceptionGrant => ({
        id: grant.id,
        kind: grant.kind,
        program,
        need: grant.needId,
        course: course === null ? null : courseCode(course),
        reason: grant.reason,
        by,
        at: grant.at.getTime()
      })),
      waivers: (waivers.get(s.id) ?? []).map(({ waiver, course, by }) => ({
        course: courseCode(course),
        state: waiver.state,
        reason: waiver.reason,
        askedAt: waiver.askedAt.getTime(),
        answered: by && waiver.answeredAt ? { by, at: waiver.answeredAt.getTime() } : null
      })),
      record: (record.get(s.id) ?? []).map(
        ({ course, term, credits, grade, origin, campus, mode, categories }): RecordEntry => ({
          course: courseCode(course),
          term: term === null ? null : termCode(term),
          credits,
          grade,
          origin,
          campus,
          mode,
          categories
        })
      ),
      held: seats.map((row): HeldWithParts => ({
        course: courseCode(row.course),
        term: termCode(row.term),
        section: row.section as SectionCode,
        credits: row.credits,
        placedByOffice: row.placedByOffice,
        campus: row.campus,
        mode: row.mode,
        categories: row.categories,
        components: (held.get(s.id) ?? []).flatMap((other) =>
          other.parent !== null && other.parent === row.id ? [other.section as SectionCode] : []
        )
      })),
      waiting: (waiting.get(s.id) ?? []).map(({ section, sections, course, term, place, of }) => ({
        section: section as SectionCode,
        course: courseCode(course),
        term: termCode(term),
        place,
        of,
        sections: sections as SectionCode[]
      })),
      offers: (offers.get(s.id) ?? []).map(({ offer, course, term }) => ({
        id: offer.id,
        course: courseCode(course),
        term: termCode(term),
        sections: offer.sections as SectionCode[],
        offeredAt: offer.offeredAt.getTime(),
        until: offer.until.getTime()
      })),
      fallbacks: (fallbacks.get(s.id) ?? []).map(({ course, term, list, onlyWith }) => ({
        course: courseCode(course),
        term: termCode(term),
        list,
        onlyWith: onlyWith === null ? null : courseCode(onlyWith)
      })),
      prepared: (prepared.get(s.id) ?? []).map(({ sheet: { order, leftOut, whole, armedAt }, term }) => ({
        term: termCode(term),
        order,
        leftOut,
        whole,
        armed: armedAt !== null
      })),
      holds: (holds.get(s.id) ?? []).map(({ title, office, amount, stopsRegistration, howToLift }) => ({
        title,
        office,
        amount,
        stopsRegistration,
        howToLift
      })),
      accounts: accounts.get(s.id) ?? [],
      advisors: (advisors.get(s.id) ?? []).map(({ name, kind, purpose, office, mail, phone, hours }) => ({
        name,
        kind,
        purpose,
        office,
        mail,
        phone,
        hours
      })),
      route: {
        id: route?.route.id ?? null,
        name: route?.route.name ?? 'Main route',
        note: route?.route.note ?? null,
        chosen: true,
        version: route?.route.version ?? 0,
        changedAt: route?.route.changedAt.getTime() ?? 0,
        changedBy: route?.changedBy ?? '',
        reviewAskedAt: route?.route.reviewAskedAt?.getTime() ?? null,
        advisorMayEdit: route?.route.advisorMayEdit ?? false,
        seen: null,
        undo: null,
        redo: null,
        courses: (route ? (planned.get(route.route.id) ?? []) : []).map(
          ({ course, term, credits, note, locked }): PlannedCourse => ({
            course: courseCode(course),
            term: termCode(term),
            credits,
            note,
            locked
          })
        )
      },
      carry: {
        credits: s.carryCredits,
        least: s.carryLeast,
        hours: s.carryHours,
        outside: s.outsideHours,
        target: aim === null ? null : termCode(aim),
        terms: (carried.get(s.id) ?? []).map(({ term, own: { carryCredits, carryHours, away } }) => ({
          term: termCode(term),
          credits: carryCredits,
          hours: carryHours,
          away
        }))
      },
      drafts: [...groupBy(drafts.get(s.id) ?? [], (row) => row.id).values()].map((rows) => ({
        id: rows[0]!.id,
        term: termCode(rows[0]!.term),
        name: rows[0]!.name,
        goingWith: rows[0]!.goingWith === true,
        sections: rows.flatMap((row) => (row.section ? [row.section as SectionCode] : [])),
        exchanges: [
          ...new Set(rows.flatMap((row) => (row.exchange && row.course ? [courseCode(row.course)] : [])))
        ],
        asPicked: Object.fromEntries(
          rows.flatMap((row) => (row.section && row.asPicked ? [[row.section, row.asPicked]] : []))
        ),
        shareKey: relation === 'self' ? rows[0]!.shareKey : null
      })),
      sections: [...mine].flatMap((code) => sections.get(code) ?? []),
      openings: terms.flatMap((term) => {
        const found = openingFor(person, term, openings)
        return found ? [{ term, title: found.title, opens: found.opens }] : []
      }),
      keepFree: (keepFree.get(s.id) ?? []).map(keepFreeOf),
      permitted: (permitted.get(s.id) ?? []).map(({ section, kind, until }) => ({
        section: section as SectionCode,
        kind,
        until: until?.getTime() ?? null
      })),
      signOffs: (signOffs.get(s.id) ?? []).map((row) => ({
        term: termCode(row.term),
        by: row.by,
        at: row.signOff.at.getTime(),
        courses: row.signOff.courses.map(courseCode),
        creditsLeast: row.signOff.creditsLeast,
        creditsMost: row.signOff.creditsMost
      })),
      messages: (messages.get(s.id) ?? []).map(({ from, text, at }) => ({ from, text, at: at.getTime() }))
    }
  })
}
