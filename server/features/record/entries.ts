/** The registrar enters something on a record: done with its reason, told to the student, and looked at before. */
import { eq, isNull } from 'drizzle-orm'
import { phaseOf } from '#core/catalog'
import type { StudentId } from '#core/ids'
import { all, inTransaction, type Database, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { courseIds, datesOfTerm, termRow } from '#server/features/catalog/catalog'
import { Refused } from '#server/http/problem'
import { effectsOf, type Effect } from '#shared/advising/effects'
import { momentOf, type CatalogContext } from '#shared/catalog/context'
import { readStudent } from '#shared/reading'
import { ATTENDANCE_WORDS, RESIDENCY_WORDS, type Entry, type EntrySaid } from '#shared/record/entries'
import { campusDate, dayText } from '#shared/when'
import { creditsText, STANDING_WORDS } from '#shared/words'
import { mustBeGrade, readScale } from '#server/features/catalog/scale'
import { raiseStanding } from './grades'
import { lockStudent } from './lock'
import { creditsHeld } from './queries'
import { readStudentRecords } from './studentRecords'
import { addProgram, dropProgram } from './programEntries'
import { type At, type Of, before, hasAlready } from './entryWords'

/**
 * Enters it on the record. @returns what was entered, in words
 * @throws Refused where it is there already, or names what there is not
 */
export async function enter(
  tx: Transaction,
  at: At,
  { entry, reason }: EntrySaid
): Promise<{ what: string }> {
  await lockStudent(tx, at.student)
  const what = await work(tx, at, entry)
  await logEvent(tx, {
    ...{ at: at.now, account: at.who.id, student: at.student, action: 'record.entered' },
    after: { what, reason, by: at.who.name, entry }
  })
  return { what }
}

/** What it would make of the degree and of the route; nothing is entered. @throws Refused as `enter` does */
export async function lookAtEntry(
  db: Database,
  at: At,
  said: EntrySaid,
  catalogContext: CatalogContext
): Promise<{ what: string; effects: Effect[] }> {
  const read = async (of: Reader) =>
    readStudent((await readStudentRecords(of, [at.student], 'registrar'))[0]!, catalogContext, at.now)
  const before = await read(db)
  try {
    return await inTransaction(db, async (tx) => {
      const { what } = await enter(tx, at, said)
      const after = await read(tx)
      const shortTerm = (code: string) => catalogContext.terms.find((one) => one.code === code)?.name ?? code
      throw new Looked({ what, effects: effectsOf(before, after, [], shortTerm) })
    })
  } catch (error) {
    if (error instanceof Looked) return error.seen
    throw error
  }
}

/** Ends a transaction of which nothing is to stay. */
class Looked extends Error {
  constructor(readonly seen: { what: string; effects: Effect[] }) {
    super('looked at only')
  }
}

function work(tx: Transaction, at: At, entry: Entry): Promise<string> {
  switch (entry.kind) {
    case 'grade':
      return enterGrade(tx, at, entry)
    case 'credit':
      return enterCredit(tx, at, entry)
    case 'dropCredit':
      return dropCredit(tx, at, entry)
    case 'test':
      return enterTest(tx, at, entry)
    case 'status':
      return enterStatus(tx, at, entry)
    case 'addProgram':
      return addProgram(tx, at, entry)
    case 'dropProgram':
      return dropProgram(tx, at, entry)
    case 'advisor':
      return enterAdvisor(tx, at, entry)
  }
}

const idOf = async (db: Reader, code: Of<'grade'>['course']) => (await courseIds(db, [code])).get(code)!

/** @throws Refused where the course was not taken then, or the term has not begun */
async function enterGrade(
  tx: Transaction,
  at: At,
  { course, term: code, grade }: Of<'grade'>
): Promise<string> {
  await mustBeGrade(tx, grade, 'entry.grade')
  const [term, id] = [await termRow(tx, code), await idOf(tx, course)]
  if (phaseOf(datesOfTerm(term), momentOf(at.now, at.zone).today) === 'future')
    throw new Refused(422, 'termAhead', `${term.name} has not begun.`, [
      { field: 'entry.term', message: 'has to be a term that has begun' }
    ])
  const own = all(eq(t.recordCourse.studentId, at.student), eq(t.recordCourse.courseId, id))
  const [known] = await tx
    .select()
    .from(t.recordCourse)
    .where(all(own, eq(t.recordCourse.termId, term.id)))
  if (known?.grade === grade)
    throw hasAlready('entry.grade', `${course} has ${grade} in ${term.name} already.`)
  if (known) await tx.update(t.recordCourse).set({ grade }).where(eq(t.recordCourse.id, known.id))
  else {
    const [held] = await tx
      .select({
        credits: creditsHeld,
        campusId: t.section.campusId,
        mode: t.section.mode,
        categories: t.section.categories
      })
      .from(t.registration)
      .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
      .where(
        all(
          eq(t.registration.studentId, at.student),
          eq(t.section.courseId, id),
          eq(t.section.termId, term.id),
          isNull(t.section.parentId)
        )
      )
    if (!held)
      throw new Refused(422, 'notTaken', `${course} was not taken in ${term.name}.`, [
        { field: 'entry.course', message: `has to be a course taken in ${term.name}` }
      ])
    await tx.insert(t.recordCourse).values({
      ...{ studentId: at.student, courseId: id, termId: term.id, grade, origin: 'here', ...held }
    })
  }
  await raiseStanding(tx, at.student)
  return `${course}, ${term.name}: ${grade}${before(known?.grade ?? null)}`
}

const broughtIn = (student: StudentId, course: number) =>
  all(
    eq(t.recordCourse.studentId, student),
    eq(t.recordCourse.courseId, course),
    isNull(t.recordCourse.termId)
  )

async function enterCredit(tx: Transaction, at: At, entry: Of<'credit'>): Promise<string> {
  const { course, credits, origin } = entry
  const grade = entry.grade ?? (await readScale(tx)).brought ?? 'TR'
  await mustBeGrade(tx, grade, 'entry.grade')
  const id = await idOf(tx, course)
  const [known] = await tx.select().from(t.recordCourse).where(broughtIn(at.student, id))
  if (known) throw hasAlready('entry.course', `${course} was brought in already.`)
  await tx
    .insert(t.recordCourse)
    .values({ studentId: at.student, courseId: id, termId: null, credits, grade, origin })
  await raiseStanding(tx, at.student)
  return `${course}, ${creditsText(credits)}, ${origin === 'transfer' ? 'brought in from elsewhere' : 'given for a test'}: ${grade}`
}

async function dropCredit(tx: Transaction, at: At, { course }: Of<'dropCredit'>): Promise<string> {
  const [gone] = await tx.delete(t.recordCourse).where(broughtIn(at.student, await idOf(tx, course)))
  if (!gone.affectedRows)
    throw new Refused(422, 'notBroughtIn', `${course} was not brought in.`, [
      { field: 'entry.course', message: 'has to be a course that was brought in' }
    ])
  return `${course} is not counted as brought in any more`
}

async function enterTest(tx: Transaction, at: At, { test, score, takenOn }: Of<'test'>): Promise<string> {
  if (takenOn > campusDate(at.now, at.zone))
    throw new Refused(422, 'dayAhead', 'The day of the test is still to come.', [
      { field: 'entry.takenOn', message: 'has to be today or earlier' }
    ])
  const own = all(
    eq(t.testScore.studentId, at.student),
    eq(t.testScore.test, test),
    eq(t.testScore.takenOn, takenOn)
  )
  const [known] = await tx.select().from(t.testScore).where(own)
  if (known) await tx.update(t.testScore).set({ score }).where(eq(t.testScore.id, known.id))
  else await tx.insert(t.testScore).values({ studentId: at.student, test, score, takenOn })
  return `${test} of ${dayText(takenOn)}: ${score}${known ? before(String(known.score)) : ''}`
}

async function enterStatus(tx: Transaction, at: At, entry: Of<'status'>): Promise<string> {
  const { standing, attendance, residency } = entry
  const [was] = await tx
    .select({ student: t.student, block: t.block.code })
    .from(t.student)
    .leftJoin(t.block, eq(t.block.id, t.student.blockId))
    .where(eq(t.student.id, at.student))
  const [block] =
    entry.block === null
      ? []
      : await tx.select({ id: t.block.id }).from(t.block).where(eq(t.block.code, entry.block))
  if (entry.block !== null && !block)
    throw new Refused(422, 'noBlock', `There is no block ${entry.block}.`, [
      { field: 'entry.block', message: 'has to be the code of a block, or empty' }
    ])
  const said = [
    standing !== was!.student.standing &&
      `class standing ${STANDING_WORDS[standing]}${before(STANDING_WORDS[was!.student.standing])}`,
    attendance !== was!.student.attendance &&
      `attendance ${ATTENDANCE_WORDS[attendance]}${before(ATTENDANCE_WORDS[was!.student.attendance])}`,
    residency !== was!.student.residency &&
      `${RESIDENCY_WORDS[residency]}${before(RESIDENCY_WORDS[was!.student.residency])}`,
    entry.block !== was!.block && `block ${entry.block ?? 'none'}${before(was!.block)}`
  ].filter((one) => one !== false)
  if (!said.length) throw hasAlready('entry', 'All of that is on the record already.')
  await tx
    .update(t.student)
    .set({ standing, attendance, residency, blockId: block?.id ?? null })
    .where(eq(t.student.id, at.student))
  return said.join('; ')
}

/** Who advises for a purpose, in place of whoever did. */
async function enterAdvisor(tx: Transaction, at: At, { purpose, advisor }: Of<'advisor'>): Promise<string> {
  const own = await tx
    .select({ id: t.advisor.id, name: t.account.name, purpose: t.advising.purpose })
    .from(t.advising)
    .innerJoin(t.advisor, eq(t.advisor.id, t.advising.advisorId))
    .innerJoin(t.account, eq(t.account.id, t.advisor.accountId))
    .where(eq(t.advising.studentId, at.student))
  const was = own.filter((one) => one.purpose === purpose)
  const [next] =
    advisor === null
      ? []
      : await tx
          .select({ name: t.account.name, role: t.account.role })
          .from(t.advisor)
          .innerJoin(t.account, eq(t.account.id, t.advisor.accountId))
          .where(eq(t.advisor.id, advisor))
  if (advisor !== null && next?.role !== `${purpose}Advisor`)
    throw new Refused(422, 'noAdvisor', 'There is no such advisor for that.', [
      { field: 'entry.advisor', message: `has to be a ${purpose} advisor` }
    ])
  if (own.some((one) => one.id === advisor) || (advisor === null && !was.length))
    throw hasAlready('entry.advisor', `${next?.name ?? 'Nobody'} advises already.`)
  await tx
    .delete(t.advising)
    .where(all(eq(t.advising.studentId, at.student), eq(t.advising.purpose, purpose)))
  if (advisor !== null)
    await tx.insert(t.advising).values({
      ...{ advisorId: advisor, studentId: at.student, purpose, sinceOn: campusDate(at.now, at.zone) }
    })
  const names = was.map((one) => one.name).join(', ')
  return `${purpose} advisor: ${next?.name ?? 'nobody'}${before(names || null)}`
}
