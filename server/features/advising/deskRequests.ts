/** Requests at somebody's desk: those that wait for them, and those they have answered, with what it would come to. */
import { asc, eq, gte, inArray, type SQL } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { courseCode, studentId, termCode, type SectionCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { Section } from '#core/week'
import { all, type Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import { programSpec } from '#server/features/catalog/programs'
import { needIn } from '#server/features/degree/exceptions'
import { sectionsByCode } from '#server/features/sections/sections'
import type { Who } from '#shared/accounts/responses'
import {
  asDecider,
  DECIDERS,
  mayDecide,
  type Decider,
  type DeskRequest,
  type HandedOn
} from '#shared/advising/asking'
import { deciderFor, decidersFor, readPolicy } from './deciders'

const ofSection = alias(t.course, 'of_section')

/** Requests with what they are about, those asked for first come first. */
export const requestsAbout = (db: Reader, which: SQL) =>
  db
    .select({
      request: t.request,
      section: t.section,
      sectionCourse: ofSection.code,
      course: t.course.code,
      term: t.term.code,
      program: t.program,
      version: t.programVersion,
      name: t.account.name
    })
    .from(t.request)
    .innerJoin(t.student, eq(t.student.id, t.request.studentId))
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .leftJoin(t.section, eq(t.section.id, t.request.sectionId))
    .leftJoin(ofSection, eq(ofSection.id, t.section.courseId))
    .leftJoin(t.course, eq(t.course.id, t.request.courseId))
    .leftJoin(t.term, eq(t.term.id, t.section.termId))
    .leftJoin(t.programVersion, eq(t.programVersion.id, t.request.programVersionId))
    .leftJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .where(which)
    .orderBy(asc(t.request.id))

export type RequestAbout = Awaited<ReturnType<typeof requestsAbout>>[number]

/** How requests were handed on, by request, the first step first. */
export async function handedOnRows(
  db: Reader,
  requests: readonly number[]
): Promise<Map<number, HandedOn[]>> {
  if (!requests.length) return new Map()
  const rows = await db
    .select({ step: t.requestHandedOn, by: t.account.name })
    .from(t.requestHandedOn)
    .innerJoin(t.account, eq(t.account.id, t.requestHandedOn.byId))
    .where(inArray(t.requestHandedOn.requestId, [...requests]))
    .orderBy(asc(t.requestHandedOn.id))
  const found = groupBy(rows, (row) => row.step.requestId)
  return new Map(
    [...found].map(([id, steps]) => [
      id,
      steps.map(({ step, by }) => ({ by, at: step.at.getTime(), to: step.handedTo, words: step.words }))
    ])
  )
}

const DAY_MS = 86_400_000
/** For so long what was answered stands with what waits. */
const ANSWERED_DAYS = 30

export async function readDeskRequests(
  db: Reader,
  who: Pick<Who, 'id' | 'role' | 'name'>,
  now: Instant
): Promise<DeskRequest[]> {
  const role = asDecider(who.role)
  if (!role) return []
  const mine = [...(await waitingFor(db, who, role)), ...(await answeredBy(db, who, now))]
  const steps = await handedOnRows(
    db,
    mine.map((row) => row.request.id)
  )
  const policy = await readPolicy(db)
  const found: DeskRequest[] = []
  for (const row of mine) {
    const { request, section } = row
    // What is answered is handed on to nobody.
    const there = request.state === 'asked' ? await decidersFor(db, request) : new Set()
    found.push({
      id: request.id,
      student: { id: studentId(request.studentId), name: row.name },
      kind: request.kind,
      term: row.term === null ? null : termCode(row.term),
      course: codeOf(row),
      section: section && (section.code as SectionCode),
      number: section && section.number,
      need: needOf(row),
      onRecord:
        request.kind === 'program' && row.program && row.version
          ? { title: row.program.title, catalogYear: row.version.catalogYear }
          : null,
      against: request.against,
      reason: request.reason,
      askedAt: request.askedAt.getTime(),
      state: request.state as DeskRequest['state'],
      waitsFor: request.waitsFor,
      answer: answerOf(request, who.name),
      handedOn: steps.get(request.id) ?? [],
      seats: section && {
        taken: section.taken + section.offered,
        capacity: section.capacity,
        waiting: section.waiting
      },
      sections: await clashing(db, row),
      as: role,
      mayDecide: mayDecide(policy, role, request.kind),
      others: DECIDERS.filter((one) => one !== role && there.has(one) && mayDecide(policy, one, request.kind))
    })
  }
  return found
}

async function waitingFor(db: Reader, who: Pick<Who, 'id' | 'role'>, role: Decider): Promise<RequestAbout[]> {
  const asked = await requestsAbout(db, all(eq(t.request.state, 'asked'), eq(t.request.waitsFor, role)))
  const mine = []
  for (const row of asked) if (await deciderFor(db, who, row.request)) mine.push(row)
  return mine
}

function answeredBy(db: Reader, { id }: Pick<Who, 'id'>, now: Instant): Promise<RequestAbout[]> {
  const since = new Date(now - ANSWERED_DAYS * DAY_MS)
  const isAnswered = inArray(t.request.state, ['given', 'declined'])
  return requestsAbout(db, all(isAnswered, eq(t.request.byId, id), gte(t.request.decidedAt, since)))
}

function answerOf(
  { state, decidedAt, words, until }: RequestAbout['request'],
  by: string
): DeskRequest['answer'] {
  if (state === 'asked' || !decidedAt) return null
  return { by, at: decidedAt.getTime(), words, until: until?.getTime() ?? null }
}

function codeOf({ sectionCourse, course }: RequestAbout) {
  const code = sectionCourse ?? course
  return code === null ? null : courseCode(code)
}

/** The requirement that a request is about. */
export function needOf({ program, version, request }: RequestAbout): DeskRequest['need'] {
  if (!program || !version || request.needId === null) return null
  const spec = programSpec({ ...program, ...version })
  return { program: spec.title, title: needIn(spec, request.needId)?.title ?? request.needId }
}

/** Of a clash: the section that is asked for, and the student's of the other course, held or picked. */
async function clashing(db: Reader, { request, section }: RequestAbout): Promise<Section[]> {
  if (request.against?.code !== 'clash' || !section) return []
  const other = db.select({ id: t.course.id }).from(t.course).where(eq(t.course.code, request.against.with))
  const ofOther = all(eq(t.section.termId, section.termId), inArray(t.section.courseId, other))
  const code = { code: t.section.code }
  const held = await db
    .select(code)
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .where(all(eq(t.registration.studentId, request.studentId), ofOther))
  const picked = await db
    .select(code)
    .from(t.pickedSection)
    .innerJoin(t.draftWeek, eq(t.draftWeek.id, t.pickedSection.draftWeekId))
    .innerJoin(t.section, eq(t.section.id, t.pickedSection.sectionId))
    .where(all(eq(t.draftWeek.studentId, request.studentId), eq(t.draftWeek.goingWith, true), ofOther))
  const codes = [section.code, ...(held.length ? held : picked).map((row) => row.code)]
  return sectionsByCode(db, codes as SectionCode[])
}
