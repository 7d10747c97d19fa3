/** What students ask for, and what was granted. */
import { sql } from 'drizzle-orm'
import { check, index, int, json, mysqlEnum, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import type { Refusal } from '#core/findings'
import { DECIDERS, REQUEST_KINDS } from '#shared/advising/asking'
import { course } from './catalog'
import { credits, id, instant } from './columns'
import { section } from './offer'
import { account, student } from './people'
import { programVersion } from './program'

/** A waiver of a need, of part of it or of a condition, or a course taken for a need. */
export const exception = mysqlTable(
  'exception',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    kind: mysqlEnum(['waiver', 'substitution']).notNull(),
    programVersionId: int()
      .notNull()
      .references(() => programVersion.id),
    needId: varchar({ length: 40 }).notNull(),
    /** So many courses or credits of the need; all of it without. */
    amount: credits(),
    courseId: int().references(() => course.id),
    reason: varchar({ length: 400 }).notNull(),
    byId: int()
      .notNull()
      .references(() => account.id),
    at: instant().notNull(),
    withdrawnAt: instant()
  },
  (t) => [
    index('exception_student').on(t.studentId),
    check('exception_course', sql`(${t.kind} = 'substitution') = (${t.courseId} is not null)`),
    check('exception_amount', sql`${t.amount} is null or (${t.kind} = 'waiver' and ${t.amount} > 0)`)
  ]
)

/**
 * A student asks for a permission, a waiver or a substitution; whoever may decides. What it is about is a section for a
 * permission, a course for a waiver of its prerequisite, a program
 * that is wrong, and a requirement for the rest.
 */
export const request = mysqlTable(
  'request',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    kind: mysqlEnum(REQUEST_KINDS).notNull(),
    sectionId: int().references(() => section.id),
    courseId: int().references(() => course.id),
    programVersionId: int().references(() => programVersion.id),
    needId: varchar({ length: 40 }),
    state: mysqlEnum(['asked', 'given', 'declined', 'withdrawn']).notNull(),
    reason: varchar({ length: 400 }).notNull(),
    askedAt: instant().notNull(),
    /** What stood in the way when it was asked for. */
    against: json().$type<Refusal>(),
    /** Whose answer it waits for, or waited for last. */
    waitsFor: mysqlEnum(DECIDERS).notNull(),
    byId: int().references(() => account.id),
    decidedAt: instant(),
    /** What was said with the answer. */
    words: varchar({ length: 400 }),
    until: instant()
  },
  (t) => [
    index('request_student').on(t.studentId, t.sectionId),
    index('request_state').on(t.state, t.waitsFor),
    check(
      'request_about',
      sql`(${t.sectionId} is null) = (${t.kind} in ('waiver', 'need', 'substitution', 'program'))
        and (${t.courseId} is not null) = (${t.kind} in ('waiver', 'substitution'))
        and (${t.programVersionId} is not null) = (${t.kind} in ('need', 'substitution', 'program'))
        and (${t.needId} is not null) = (${t.kind} in ('need', 'substitution'))`
    )
  ]
)

/** A request was handed on by somebody to whoever is named. */
export const requestHandedOn = mysqlTable(
  'request_handed_on',
  {
    id: id(),
    requestId: int()
      .notNull()
      .references(() => request.id),
    byId: int()
      .notNull()
      .references(() => account.id),
    at: instant().notNull(),
    handedTo: mysqlEnum(DECIDERS).notNull(),
    words: varchar({ length: 400 })
  },
  (t) => [index('request_handed_on_request').on(t.requestId)]
)
