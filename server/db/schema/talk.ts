/** What students and advisors say, suggest and agree on. */
import { sql } from 'drizzle-orm'
import {
  boolean,
  check,
  date,
  index,
  int,
  json,
  mysqlEnum,
  mysqlTable,
  primaryKey,
  varchar
} from 'drizzle-orm/mysql-core'
import type { PlannedCourse } from '#core/degree'
import type { SectionCode } from '#core/ids'
import type { RouteChange } from '#core/findings'
import { SUGGESTION_STATES } from '#shared/advising/suggestions'
import { AGREED_BY, THREAD_SUBJECTS } from '#shared/advising/talk'
import { term } from './calendar'
import { course } from './catalog'
import { id, instant } from './columns'
import { account, student } from './people'
import { route } from './route'

/** What is talked about, a matter each; its remarks follow one another. */
export const thread = mysqlTable(
  'thread',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    about: mysqlEnum(THREAD_SUBJECTS).notNull(),
    /** The course, term, need or section; nothing of the whole route. */
    aboutKey: varchar({ length: 80 }),
    /** Its number in the talk, where it has one: among matters and suggestions of the student. */
    number: int(),
    /** Among advisors: it is no part of what is sent to the student. */
    advisorsOnly: boolean().notNull().default(false),
    settledAt: instant(),
    settledById: int().references(() => account.id)
  },
  (t) => [
    index('thread_student').on(t.studentId),
    check('thread_about', sql`(${t.about} = 'route') = (${t.aboutKey} is null)`),
    check('thread_number', sql`(${t.number} is null) = ${t.advisorsOnly}`),
    check('thread_settled', sql`(${t.settledAt} is null) = (${t.settledById} is null)`)
  ]
)

export const remark = mysqlTable(
  'remark',
  {
    id: id(),
    threadId: int()
      .notNull()
      .references(() => thread.id),
    authorId: int()
      .notNull()
      .references(() => account.id),
    text: varchar({ length: 2000 }).notNull(),
    at: instant().notNull()
  },
  (t) => [index('remark_thread').on(t.threadId)]
)

/** Who is asked to read a remark. */
export const remarkNamed = mysqlTable(
  'remark_named',
  {
    remarkId: int()
      .notNull()
      .references(() => remark.id),
    accountId: int()
      .notNull()
      .references(() => account.id)
  },
  (t) => [primaryKey({ columns: [t.remarkId, t.accountId] })]
)

/** Up to which remark somebody has read a thread. */
export const threadRead = mysqlTable(
  'thread_read',
  {
    accountId: int()
      .notNull()
      .references(() => account.id),
    threadId: int()
      .notNull()
      .references(() => thread.id),
    remarkId: int()
      .notNull()
      .references(() => remark.id)
  },
  (t) => [primaryKey({ columns: [t.accountId, t.threadId] })]
)

/** A change of a route that an advisor proposes; the student accepts it or not. */
export const suggestion = mysqlTable(
  'suggestion',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    routeId: int()
      .notNull()
      .references(() => route.id),
    byId: int()
      .notNull()
      .references(() => account.id),
    at: instant().notNull(),
    /** Its number in the talk. */
    number: int().notNull(),
    change: json().$type<RouteChange>().notNull(),
    /** What was planned of its courses when it was made. */
    before: json().$type<PlannedCourse[]>().notNull(),
    why: varchar({ length: 400 }),
    state: mysqlEnum(SUGGESTION_STATES).notNull(),
    answeredById: int().references(() => account.id),
    answeredAt: instant(),
    /** What was said with the answer. */
    words: varchar({ length: 400 })
  },
  (t) => [
    index('suggestion_student').on(t.studentId),
    check(
      'suggestion_answered',
      sql`(${t.state} in ('accepted', 'declined')) = (${t.answeredById} is not null)`
    ),
    check('suggestion_at', sql`(${t.answeredById} is null) = (${t.answeredAt} is null)`)
  ]
)

/** Sections of a course that an advisor proposes for the student's week; the student accepts them or not. */
export const sectionSuggestion = mysqlTable(
  'section_suggestion',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    courseId: int()
      .notNull()
      .references(() => course.id),
    /** Codes of a section and of one of each of its components. */
    sections: json().$type<SectionCode[]>().notNull(),
    byId: int()
      .notNull()
      .references(() => account.id),
    at: instant().notNull(),
    /** Its number in the talk. */
    number: int().notNull(),
    state: mysqlEnum(SUGGESTION_STATES).notNull(),
    answeredById: int().references(() => account.id),
    answeredAt: instant()
  },
  (t) => [
    index('section_suggestion_student').on(t.studentId),
    check(
      'section_suggestion_answered',
      sql`(${t.state} in ('accepted', 'declined')) = (${t.answeredById} is not null)`
    ),
    check('section_suggestion_at', sql`(${t.answeredById} is null) = (${t.answeredAt} is null)`)
  ]
)

/** What was agreed in a talk: what, who, by when. */
export const agreed = mysqlTable(
  'agreed',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    what: varchar({ length: 200 }).notNull(),
    who: mysqlEnum(AGREED_BY).notNull(),
    dueOn: date({ mode: 'string' }),
    madeById: int()
      .notNull()
      .references(() => account.id),
    madeAt: instant().notNull(),
    doneAt: instant(),
    doneById: int().references(() => account.id),
    droppedAt: instant()
  },
  (t) => [
    index('agreed_student').on(t.studentId),
    check('agreed_done', sql`(${t.doneAt} is null) = (${t.doneById} is null)`)
  ]
)
