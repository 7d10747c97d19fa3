import { sql } from 'drizzle-orm'
import {
  boolean,
  check,
  date,
  index,
  int,
  json,
  mediumtext,
  mysqlEnum,
  mysqlTable,
  primaryKey,
  uniqueIndex,
  varchar
} from 'drizzle-orm/mysql-core'
import type { SignOffCondition } from '#core/findings'
import { SIGN_OFF_POLICIES } from '#core/registration'
import type { DeskView } from '#shared/advising/desk'
import type { ReviewAnswer } from '#shared/advising/review'
import { term } from './calendar'
import { credits, id, instant } from './columns'
import { account, student } from './people'
import { program } from './program'
import { route } from './route'
import { suggestion, agreed } from './talk'

/** The advisor's approval of a term of a route: its courses and a range of credits, not sections. */
export const signOff = mysqlTable(
  'sign_off',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    routeId: int()
      .notNull()
      .references(() => route.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    byId: int()
      .notNull()
      .references(() => account.id),
    at: instant().notNull(),
    courses: json().$type<string[]>().notNull(),
    /** Courses that may be taken in place of one of them. */
    alternatives: json()
      .$type<string[]>()
      .notNull()
      .default(sql`('[]')`),
    creditsLeast: credits().notNull(),
    creditsMost: credits().notNull(),
    conditions: json().$type<SignOffCondition[]>().notNull().default([]),
    /** From then on it stands no more. */
    until: instant(),
    /** What marks those that were given together. */
    together: varchar({ length: 36 }),
    withdrawnAt: instant()
  },
  (t) => [
    index('sign_off_student').on(t.studentId, t.termId),
    check('sign_off_range', sql`${t.creditsLeast} <= ${t.creditsMost}`)
  ]
)

/** The sign-off that a program asks for in a term, where it is not the term's own. */
export const programSignOff = mysqlTable(
  'program_sign_off',
  {
    termId: int()
      .notNull()
      .references(() => term.id),
    programId: int()
      .notNull()
      .references(() => program.id),
    policy: mysqlEnum(SIGN_OFF_POLICIES).notNull()
  },
  (t) => [primaryKey({ columns: [t.termId, t.programId] })]
)

/** Whom of the desk an advisor looks at, kept by a name. */
export const deskView = mysqlTable(
  'desk_view',
  {
    id: id(),
    accountId: int()
      .notNull()
      .references(() => account.id),
    name: varchar({ length: 40 }).notNull(),
    view: json().$type<DeskView>().notNull()
  },
  (t) => [uniqueIndex('desk_view_name').on(t.accountId, t.name)]
)

/** What a desk says of a student's audits and checks, for the state of which the print is. */
export const deskReading = mysqlTable('desk_reading', {
  studentId: int()
    .primaryKey()
    .references(() => student.id),
  print: varchar({ length: 44 }).notNull(),
  reading: mediumtext().notNull()
})

/** A student asks the program advisor to look at a term of the chosen route; the last one of a term is the one that counts. */
export const review = mysqlTable(
  'review',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    note: varchar({ length: 1000 }),
    /** What the programs ask of whoever wants a review, as it was asked then. */
    answers: json()
      .$type<ReviewAnswer[]>()
      .notNull()
      .default(sql`('[]')`),
    askedAt: instant().notNull(),
    withdrawnAt: instant(),
    answer: mysqlEnum(['signedOff', 'notYet']),
    /** What is missing, where the answer is not yet. */
    missing: varchar({ length: 1000 }),
    answeredById: int().references(() => account.id),
    answeredAt: instant()
  },
  (t) => [
    index('review_student').on(t.studentId, t.termId),
    check(
      'review_answered',
      sql`(${t.answer} is null) = (${t.answeredById} is null) and (${t.answer} is null) = (${t.answeredAt} is null)`
    ),
    check(
      'review_missing',
      sql`(${t.answer} is not null and ${t.answer} = 'notYet') = (${t.missing} is not null)`
    )
  ]
)

/** An advisor plans with a group: courses of a term, or a task with a day, are offered to each of them. */
export const groupSession = mysqlTable(
  'group_session',
  {
    id: id(),
    byId: int()
      .notNull()
      .references(() => account.id),
    title: varchar({ length: 80 }).notNull(),
    termId: int()
      .notNull()
      .references(() => term.id),
    /** Offered to everybody; with `sequence`, what their program suggests for the term, too. */
    courses: json().$type<string[]>().notNull(),
    sequence: boolean().notNull(),
    task: varchar({ length: 200 }),
    dueOn: date({ mode: 'string' }),
    madeAt: instant().notNull()
  },
  (t) => [index('group_session_by').on(t.byId)]
)

/** What a student of a group was offered; what became of it stands with the suggestion and the line. */
export const groupMember = mysqlTable(
  'group_member',
  {
    sessionId: int()
      .notNull()
      .references(() => groupSession.id),
    studentId: int()
      .notNull()
      .references(() => student.id),
    suggestionId: int().references(() => suggestion.id),
    agreedId: int().references(() => agreed.id),
    /** Courses that were not offered to this student, since they have or plan them, or why nothing was. */
    without: json().$type<string[]>().notNull()
  },
  (t) => [primaryKey({ columns: [t.sessionId, t.studentId] }), index('group_member_student').on(t.studentId)]
)
