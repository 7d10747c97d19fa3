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
  smallint,
  text,
  uniqueIndex,
  varchar
} from 'drizzle-orm/mysql-core'
import { STANDINGS } from '#core/requisites'
import { ROLES } from '#shared/accounts/responses'
import { term } from './calendar'
import { course } from './catalog'
import { credits, id, instant, money } from './columns'
import { campus, department } from './institution'
import { block, instructor } from './offer'
import { programVersion } from './program'

export const account = mysqlTable(
  'account',
  {
    id: id(),
    name: varchar({ length: 80 }).notNull(),
    signIn: varchar({ length: 60 }).notNull(),
    passwordHash: varchar({ length: 200 }).notNull(),
    /** Where mails go; null: nowhere. */
    mail: varchar({ length: 120 }),
    role: mysqlEnum(ROLES).notNull(),
    /** On a demo card: the situation this person stands for. */
    situation: varchar({ length: 160 }),
    /** Who teaches; and for which department somebody acts. */
    instructorId: int().references(() => instructor.id),
    departmentId: int().references(() => department.id),
    /** Whose holds somebody places and lifts: as kinds of holds name it. */
    office: varchar({ length: 80 }),
    /** From when nobody signs in with it; what was done with it stays. */
    endedAt: instant()
  },
  (t) => [
    uniqueIndex('account_sign_in').on(t.signIn),
    check('account_instructor', sql`${t.instructorId} is null or ${t.role} = 'instructor'`),
    check('account_department', sql`${t.departmentId} is null or ${t.role} = 'department'`),
    check('account_office', sql`${t.office} is null or ${t.role} = 'office'`)
  ]
)

export const student = mysqlTable(
  'student',
  {
    id: id(),
    accountId: int()
      .notNull()
      .references(() => account.id),
    number: varchar({ length: 10 }).notNull(),
    standing: mysqlEnum(STANDINGS as unknown as [string, ...string[]])
      .$type<(typeof STANDINGS)[number]>()
      .notNull(),
    level: mysqlEnum(['undergraduate', 'graduate']).notNull(),
    homeCampusId: int()
      .notNull()
      .references(() => campus.id),
    blockId: int().references(() => block.id),
    attendance: mysqlEnum(['fullTime', 'partTime', 'evening', 'distance']).notNull(),
    residency: mysqlEnum(['resident', 'nonResident']).notNull().default('resident'),
    aid: mysqlEnum(['none', 'receiving', 'warning']).notNull(),
    /** The term in which this student wants to finish. */
    aimTermId: int().references(() => term.id),
    /** What the student can carry in a term: credits, hours of study a week, hours of work and family. */
    carryCredits: credits(),
    carryLeast: credits(),
    carryHours: smallint(),
    outsideHours: smallint()
  },
  (t) => [uniqueIndex('student_account').on(t.accountId), uniqueIndex('student_number').on(t.number)]
)

/** Where a term differs from what the student can usually carry, or is spent elsewhere. */
export const studentTerm = mysqlTable(
  'student_term',
  {
    studentId: int()
      .notNull()
      .references(() => student.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    carryCredits: credits(),
    carryHours: smallint(),
    away: mysqlEnum(['exchange', 'leave'])
  },
  (t) => [primaryKey({ columns: [t.studentId, t.termId] })]
)

/** The requirement sets of a student: a degree, a minor, an obligatory certificate. */
export const studentProgram = mysqlTable(
  'student_program',
  {
    studentId: int()
      .notNull()
      .references(() => student.id),
    programVersionId: int()
      .notNull()
      .references(() => programVersion.id),
    ordinal: smallint().notNull(),
    /** The student says that it is right, or what is right instead. */
    confirmed: mysqlEnum(['open', 'confirmed', 'wrong']).notNull().default('open'),
    saidInstead: varchar({ length: 400 }),
    saidAt: instant()
  },
  (t) => [primaryKey({ columns: [t.studentId, t.programVersionId] })]
)

export const recordCourse = mysqlTable(
  'record_course',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    courseId: int()
      .notNull()
      .references(() => course.id),
    termId: int().references(() => term.id),
    credits: credits().notNull(),
    grade: varchar({ length: 4 }),
    origin: mysqlEnum(['here', 'transfer', 'test']).notNull(),
    /** Where and how it was held, where that is known. */
    campusId: int().references(() => campus.id),
    mode: mysqlEnum(['inPerson', 'onlineHours', 'online', 'mixed']),
    /** Codes of categories, where they were others than those of the course. */
    categories: json().$type<string[]>()
  },
  (t) => [
    uniqueIndex('record_course_once').on(t.studentId, t.courseId, t.termId),
    // Only a course of a term can be under way.
    check('record_course_grade', sql`${t.grade} is not null or ${t.termId} is not null`)
  ]
)

export const testScore = mysqlTable(
  'test_score',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    test: varchar({ length: 24 }).notNull(),
    score: smallint().notNull(),
    takenOn: date({ mode: 'string' }).notNull()
  },
  (t) => [index('test_score_student').on(t.studentId)]
)

/** A condition of a program that no course meets: a portfolio shown, a talk given. */
export const milestone = mysqlTable(
  'milestone',
  {
    studentId: int()
      .notNull()
      .references(() => student.id),
    /** The id of the program's condition. */
    condition: varchar({ length: 40 }).notNull(),
    reachedOn: date({ mode: 'string' }).notNull()
  },
  (t) => [primaryKey({ columns: [t.studentId, t.condition] })]
)

export const hold = mysqlTable(
  'hold',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    title: varchar({ length: 80 }).notNull(),
    office: varchar({ length: 80 }).notNull(),
    howToLift: text().notNull(),
    amount: money(),
    stopsRegistration: boolean().notNull(),
    stopsTranscript: boolean().notNull().default(false),
    placedAt: instant().notNull(),
    /** Null where it came from elsewhere. */
    placedById: int().references(() => account.id),
    liftedAt: instant(),
    liftedById: int().references(() => account.id)
  },
  (t) => [index('hold_student').on(t.studentId)]
)

/** What holds an office may place, and what each stops. */
export const holdKind = mysqlTable(
  'hold_kind',
  {
    id: id(),
    title: varchar({ length: 80 }).notNull(),
    office: varchar({ length: 80 }).notNull(),
    howToLift: text().notNull(),
    stopsRegistration: boolean().notNull(),
    /** Transcripts that were asked for are not sent while it stands. */
    stopsTranscript: boolean().notNull().default(false),
    /** Whether an amount is owed with it. */
    takesAmount: boolean().notNull()
  },
  (t) => [uniqueIndex('hold_kind_title').on(t.office, t.title)]
)

/** A person of the faculty, or an office. */
export const advisor = mysqlTable(
  'advisor',
  {
    id: id(),
    accountId: int()
      .notNull()
      .references(() => account.id),
    kind: mysqlEnum(['person', 'office']).notNull(),
    office: varchar({ length: 60 }).notNull(),
    mail: varchar({ length: 120 }).notNull(),
    phone: varchar({ length: 40 }).notNull(),
    hours: varchar({ length: 120 }).notNull()
  },
  (t) => [uniqueIndex('advisor_account').on(t.accountId)]
)

export const advising = mysqlTable(
  'advising',
  {
    advisorId: int()
      .notNull()
      .references(() => advisor.id),
    studentId: int()
      .notNull()
      .references(() => student.id),
    purpose: mysqlEnum(['program', 'support']).notNull(),
    sinceOn: date({ mode: 'string' }).notNull()
  },
  (t) => [primaryKey({ columns: [t.advisorId, t.studentId] }), index('advising_student').on(t.studentId)]
)
