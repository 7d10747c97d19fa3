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
import type { PlannedCourse } from '#core/degree'
import type { SectionCode } from '#core/ids'
import type { Refusal, RouteChange, SignOffCondition } from '#core/findings'
import { SIGN_OFF_POLICIES } from '#core/registration'
import { DECIDERS, REQUEST_KINDS } from '#shared/advising/asking'
import type { DeskView } from '#shared/advising/desk'
import type { ReviewAnswer } from '#shared/advising/review'
import { SUGGESTION_STATES } from '#shared/advising/suggestions'
import { AGREED_BY, THREAD_SUBJECTS } from '#shared/advising/talk'
import { term } from './calendar'
import { course } from './catalog'
import { credits, id, instant } from './columns'
import { section } from './offer'
import { account, student } from './people'
import { program, programVersion } from './program'
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
