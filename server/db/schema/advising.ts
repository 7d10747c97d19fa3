import { sql } from 'drizzle-orm'
import {
  check,
  index,
  int,
  json,
  mysqlEnum,
  mysqlTable,
  text,
  uniqueIndex,
  varchar
} from 'drizzle-orm/mysql-core'
import { PERMISSION_KINDS } from '#core/week'
import { term } from './calendar'
import { course } from './catalog'
import { credits, id, instant } from './columns'
import { section } from './offer'
import { account, student } from './people'
import { programVersion } from './program'
import { route } from './route'

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
    creditsLeast: credits().notNull(),
    creditsMost: credits().notNull(),
    withdrawnAt: instant()
  },
  (t) => [
    index('sign_off_student').on(t.studentId, t.termId),
    check('sign_off_range', sql`${t.creditsLeast} <= ${t.creditsMost}`)
  ]
)

/** A waiver of a need, or a course taken for one. */
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
    check('exception_course', sql`(${t.kind} = 'substitution') = (${t.courseId} is not null)`)
  ]
)

/** A student asks that the prerequisite of a course be waived; an advisor or the registrar grants it or not. */
export const waiver = mysqlTable(
  'waiver',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    courseId: int()
      .notNull()
      .references(() => course.id),
    state: mysqlEnum(['asked', 'granted', 'declined']).notNull(),
    reason: varchar({ length: 400 }).notNull(),
    askedAt: instant().notNull(),
    answeredById: int().references(() => account.id),
    answeredAt: instant()
  },
  (t) => [
    uniqueIndex('waiver_course').on(t.studentId, t.courseId),
    check('waiver_answered', sql`(${t.state} = 'asked') = (${t.answeredById} is null)`)
  ]
)

/** Lets a student into a section in spite of a rule. Asked for, then given or not. */
export const permission = mysqlTable(
  'permission',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    sectionId: int()
      .notNull()
      .references(() => section.id),
    kind: mysqlEnum(PERMISSION_KINDS).notNull(),
    state: mysqlEnum(['asked', 'given', 'declined', 'withdrawn']).notNull(),
    reason: varchar({ length: 400 }).notNull(),
    askedAt: instant().notNull(),
    byId: int().references(() => account.id),
    decidedAt: instant(),
    until: instant()
  },
  (t) => [index('permission_student').on(t.studentId, t.sectionId)]
)

export const message = mysqlTable(
  'message',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    authorId: int()
      .notNull()
      .references(() => account.id),
    text: text().notNull(),
    at: instant().notNull(),
    readAt: instant()
  },
  (t) => [index('message_student').on(t.studentId, t.at)]
)
