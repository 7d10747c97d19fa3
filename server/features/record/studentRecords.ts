/** Students as their screens see them: read in one sweep, whether for one student or a whole desk. */
import { asc, desc, eq, inArray, isNull } from 'drizzle-orm'
import type { ExceptionGrant, PlannedCourse, RecordEntry } from '#core/degree'
import { courseCode, studentId, termCode, type SectionCode } from '#core/ids'
import { openingFor, type Opening } from '#core/registration'
import type { Section } from '#core/week'
import type { HeldWithParts, StudentRecord } from '#shared/record/responses'
import { groupBy } from '#server/db/groupBy'
import { all, type Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { PROGRAM_COLUMNS, programSpec } from '#server/features/catalog/catalog'
import { keepFreeOf } from '#server/features/week/habits'
import { sectionsByCode } from '#server/features/sections/sections'

export async function readOpenings(db: Reader): Promise<Opening[]> {
  const rows = await db
    .select({ opening: t.opening, term: t.term.code })
    .from(t.opening)
    .innerJoin(t.term, eq(t.term.id, t.opening.termId))
    .orderBy(asc(t.opening.opensAt), asc(t.opening.id))
  return rows.map(({ opening, term }) => ({
    term: termCode(term),
    title: opening.title,
    opens: opening.opensAt.getTime(),
    standings: opening.standings,
    programs: opening.programs,
    blocks: opening.blocks,
    students: opening.studentId === null ? [] : [opening.studentId]
  }))
}

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
  const openings = await readOpenings(db)

  const codes = new Set<SectionCode>()
  for (const rows of held.values())
    for (const row of rows) if (row.published) codes.add(row.section as SectionCode)
  for (const rows of drafts.values())
    for (const row of rows) if (row.section) codes.add(row.section as SectionCode)
  for (const rows of waiting.values()) for (const row of rows) codes.add(row.section as SectionCode)
  const sections = new Map<string, Section>((await sectionsByCode(db, [...codes])).map((s) => [s.code, s]))

  return students.map(({ student: s, name, campus, block, blockCode, aim }): StudentRecord => {
    const own = programs.get(s.id) ?? []
    const seats = (held.get(s.id) ?? []).filter((row) => row.parent === null)
    const route = routes.get(s.id)?.[0]
    const mine = new Set<string>()
    for (const row of held.get(s.id) ?? []) mine.add(row.section)
    for (const row of drafts.get(s.id) ?? []) if (row.section) mine.add(row.section)
    for (const row of waiting.get(s.id) ?? []) mine.add(row.section)
    const person = { id: s.id, standing: s.standing, programs: own.map((p) => p.code), block: blockCode }
    const terms = [...new Set(openings.map((o) => o.term))]
    return {
      student: {
        id: studentId(s.id),
        name,
        number: s.number,
        standing: s.standing,
        level: s.level,
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
      waiting: (waiting.get(s.id) ?? []).map(({ section, course, term, place }) => ({
        section: section as SectionCode,
        course: courseCode(course),
        term: termCode(term),
        place
      })),
      holds: (holds.get(s.id) ?? []).map(({ title, office, amount, stopsRegistration, howToLift }) => ({
        title,
        office,
        amount,
        stopsRegistration,
        howToLift
      })),
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
      permitted: (permitted.get(s.id) ?? []).map(({ section, until }) => ({
        section: section as SectionCode,
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

const programRows = (db: Reader, ids: number[]) =>
  db
    .select({
      studentId: t.studentProgram.studentId,
      confirmed: t.studentProgram.confirmed,
      saidInstead: t.studentProgram.saidInstead,
      ...PROGRAM_COLUMNS
    })
    .from(t.studentProgram)
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.studentProgram.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .where(inArray(t.studentProgram.studentId, ids))
    .orderBy(asc(t.studentProgram.ordinal))

const exceptionRows = (db: Reader, ids: number[]) =>
  db
    .select({ grant: t.exception, program: t.program.code, course: t.course.code, by: t.account.name })
    .from(t.exception)
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.exception.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .innerJoin(t.account, eq(t.account.id, t.exception.byId))
    .leftJoin(t.course, eq(t.course.id, t.exception.courseId))
    .where(all(inArray(t.exception.studentId, ids), isNull(t.exception.withdrawnAt)))
    .orderBy(asc(t.exception.at), asc(t.exception.id))

const recordRows = (db: Reader, ids: number[]) =>
  db
    .select({
      studentId: t.recordCourse.studentId,
      course: t.course.code,
      term: t.term.code,
      credits: t.recordCourse.credits,
      grade: t.recordCourse.grade,
      origin: t.recordCourse.origin,
      campus: t.campus.code,
      mode: t.recordCourse.mode,
      categories: t.recordCourse.categories
    })
    .from(t.recordCourse)
    .innerJoin(t.course, eq(t.course.id, t.recordCourse.courseId))
    .leftJoin(t.term, eq(t.term.id, t.recordCourse.termId))
    .leftJoin(t.campus, eq(t.campus.id, t.recordCourse.campusId))
    .where(inArray(t.recordCourse.studentId, ids))
    .orderBy(asc(t.term.startsOn), asc(t.course.code))

const heldRows = (db: Reader, ids: number[]) =>
  db
    .select({
      studentId: t.registration.studentId,
      course: t.course.code,
      term: t.term.code,
      published: t.term.published,
      id: t.section.id,
      section: t.section.code,
      parent: t.section.parentId,
      credits: t.section.credits,
      campus: t.campus.code,
      mode: t.section.mode,
      categories: t.section.categories,
      placedByOffice: t.registration.placedByOffice
    })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .innerJoin(t.campus, eq(t.campus.id, t.section.campusId))
    .where(inArray(t.registration.studentId, ids))
    .orderBy(asc(t.term.startsOn), asc(t.course.code), asc(t.section.number))

async function waitingRows(db: Reader, ids: number[]) {
  const rows = await db
    .select({
      studentId: t.waitlistPlace.studentId,
      sectionId: t.waitlistPlace.sectionId,
      id: t.waitlistPlace.id,
      section: t.section.code,
      course: t.course.code,
      term: t.term.code
    })
    .from(t.waitlistPlace)
    .innerJoin(t.section, eq(t.section.id, t.waitlistPlace.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(inArray(t.waitlistPlace.studentId, ids))
  if (!rows.length) return []
  const line = await db
    .select({ id: t.waitlistPlace.id, sectionId: t.waitlistPlace.sectionId })
    .from(t.waitlistPlace)
    .where(
      inArray(
        t.waitlistPlace.sectionId,
        rows.map((row) => row.sectionId)
      )
    )
    .orderBy(asc(t.waitlistPlace.joinedAt), asc(t.waitlistPlace.id))
  const lines = groupBy(line, (row) => row.sectionId)
  return rows.map((row) => ({
    ...row,
    place: lines.get(row.sectionId)!.findIndex((other) => other.id === row.id) + 1
  }))
}

const advisorRows = (db: Reader, ids: number[]) =>
  db
    .select({
      studentId: t.advising.studentId,
      purpose: t.advising.purpose,
      name: t.account.name,
      kind: t.advisor.kind,
      office: t.advisor.office,
      mail: t.advisor.mail,
      phone: t.advisor.phone,
      hours: t.advisor.hours
    })
    .from(t.advising)
    .innerJoin(t.advisor, eq(t.advisor.id, t.advising.advisorId))
    .innerJoin(t.account, eq(t.account.id, t.advisor.accountId))
    .where(inArray(t.advising.studentId, ids))
    .orderBy(asc(t.advising.purpose), asc(t.advisor.id))

const routeRows = (db: Reader, ids: number[]) =>
  db
    .select({ route: t.route, changedBy: t.account.name })
    .from(t.route)
    .innerJoin(t.account, eq(t.account.id, t.route.changedBy))
    .where(all(inArray(t.route.studentId, ids), eq(t.route.chosen, true)))

const plannedRows = (db: Reader, routeIds: number[]) =>
  db
    .select({
      routeId: t.plannedCourse.routeId,
      course: t.course.code,
      term: t.term.code,
      credits: t.plannedCourse.credits,
      note: t.plannedCourse.note,
      locked: t.plannedCourse.locked
    })
    .from(t.plannedCourse)
    .innerJoin(t.course, eq(t.course.id, t.plannedCourse.courseId))
    .innerJoin(t.term, eq(t.term.id, t.plannedCourse.termId))
    .where(inArray(t.plannedCourse.routeId, routeIds))
    .orderBy(asc(t.term.startsOn), asc(t.course.code))

const draftRows = (db: Reader, ids: number[]) =>
  db
    .select({
      studentId: t.draftWeek.studentId,
      id: t.draftWeek.id,
      name: t.draftWeek.name,
      goingWith: t.draftWeek.goingWith,
      shareKey: t.draftWeek.shareKey,
      asPicked: t.pickedSection.asPicked,
      exchange: t.pickedSection.exchange,
      term: t.term.code,
      section: t.section.code,
      course: t.course.code
    })
    .from(t.draftWeek)
    .innerJoin(t.term, eq(t.term.id, t.draftWeek.termId))
    .leftJoin(t.pickedSection, eq(t.pickedSection.draftWeekId, t.draftWeek.id))
    .leftJoin(t.section, eq(t.section.id, t.pickedSection.sectionId))
    .leftJoin(t.course, eq(t.course.id, t.section.courseId))
    .where(inArray(t.draftWeek.studentId, ids))
    .orderBy(desc(t.draftWeek.goingWith), asc(t.draftWeek.id), asc(t.pickedSection.id))

const permittedRows = (db: Reader, ids: number[]) =>
  db
    .select({ studentId: t.permission.studentId, section: t.section.code, until: t.permission.until })
    .from(t.permission)
    .innerJoin(t.section, eq(t.section.id, t.permission.sectionId))
    .where(all(inArray(t.permission.studentId, ids), eq(t.permission.state, 'given')))

const signOffRows = (db: Reader, ids: number[]) =>
  db
    .select({ studentId: t.signOff.studentId, signOff: t.signOff, term: t.term.code, by: t.account.name })
    .from(t.signOff)
    .innerJoin(t.term, eq(t.term.id, t.signOff.termId))
    .innerJoin(t.account, eq(t.account.id, t.signOff.byId))
    .where(all(inArray(t.signOff.studentId, ids), isNull(t.signOff.withdrawnAt)))
    .orderBy(desc(t.signOff.at))

const messageRows = (db: Reader, ids: number[]) =>
  db
    .select({ studentId: t.message.studentId, from: t.account.name, text: t.message.text, at: t.message.at })
    .from(t.message)
    .innerJoin(t.account, eq(t.account.id, t.message.authorId))
    .where(inArray(t.message.studentId, ids))
    .orderBy(desc(t.message.at))

function waiverRows(db: Reader, ids: number[]) {
  return db
    .select({ waiver: t.waiver, course: t.course.code, by: t.account.name })
    .from(t.waiver)
    .innerJoin(t.course, eq(t.course.id, t.waiver.courseId))
    .leftJoin(t.account, eq(t.account.id, t.waiver.answeredById))
    .where(inArray(t.waiver.studentId, ids))
    .orderBy(asc(t.waiver.askedAt))
}
