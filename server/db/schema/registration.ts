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
import type { Refusal } from '#core/findings'
import type { CourseCode } from '#core/ids'
import type { OfficeOverride } from '#core/registration'
import type { Standing } from '#core/requisites'
import type { Fallback } from '#shared/registration/fallbacks'
import type { RehearsalSaid } from '#shared/registration/rehearsal'
import { LINE_ACTIONS, OUTCOMES } from '#shared/registration/outcomes'
import { term } from './calendar'
import { course } from './catalog'
import { credits, id, instant } from './columns'
import { section } from './offer'
import { account, student } from './people'

/** From when a group may register in a term. Empty lists ask nothing. All openings are public. */
export const opening = mysqlTable(
  'opening',
  {
    id: id(),
    termId: int()
      .notNull()
      .references(() => term.id),
    title: varchar({ length: 120 }).notNull(),
    opensAt: instant().notNull(),
    standings: json().$type<Standing[]>().notNull(),
    programs: json().$type<string[]>().notNull(),
    blocks: json().$type<string[]>().notNull(),
    creditsLeast: smallint(),
    studentId: int().references(() => student.id)
  },
  (t) => [index('opening_term').on(t.termId)]
)

export const registration = mysqlTable(
  'registration',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    sectionId: int()
      .notNull()
      .references(() => section.id),
    registeredAt: instant().notNull(),
    byId: int()
      .notNull()
      .references(() => account.id),
    placedByOffice: boolean().notNull().default(false),
    /** What was chosen of a range; null where the credits of the section are given. */
    credits: credits()
  },
  (t) => [
    uniqueIndex('registration_once').on(t.studentId, t.sectionId),
    index('registration_section').on(t.sectionId)
  ]
)

/** What a student says of a line of the run sheet: what is tried after it, with what it stands, what is given up for it. */
export const fallback = mysqlTable(
  'fallback',
  {
    studentId: int()
      .notNull()
      .references(() => student.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    courseId: int()
      .notNull()
      .references(() => course.id),
    list: json().$type<Fallback[]>().notNull(),
    /** The course without which this one is not wanted. */
    onlyWithId: int().references(() => course.id),
    /** The course whose seat is given up once a seat of this one is had. */
    givingUpId: int().references(() => course.id),
    /** Chosen of a range of credits; null for the least. */
    credits: credits(),
    note: varchar({ length: 300 })
  },
  (t) => [primaryKey({ columns: [t.studentId, t.termId, t.courseId] })]
)

/** Terms of registration that were accepted, word for word; of a term the last one counts. */
export const agreement = mysqlTable(
  'agreement',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    text: text().notNull(),
    acceptedAt: instant().notNull(),
    byId: int()
      .notNull()
      .references(() => account.id)
  },
  (t) => [index('agreement_student').on(t.studentId, t.termId)]
)

/** How a student has prepared the run sheet of a term. */
export const preparedSheet = mysqlTable(
  'prepared_sheet',
  {
    studentId: int()
      .notNull()
      .references(() => student.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    /** The order in which courses are registered. */
    order: json().$type<CourseCode[]>().notNull(),
    leftOut: json().$type<CourseCode[]>().notNull(),
    /** Courses whose seats are given back first. */
    drops: json().$type<CourseCode[]>().notNull().default([]),
    whole: boolean().notNull(),
    /** Since when it is to run by itself at the opening; null where it is not. */
    armedAt: instant(),
    /** Its place among those that were armed, drawn at the opening. */
    lot: int(),
    /** By the machine's clock: until then it is one server's to run. */
    leasedUntil: instant()
  },
  (t) => [primaryKey({ columns: [t.studentId, t.termId] }), index('prepared_sheet_armed').on(t.armedAt)]
)

/** What a student's sheet was said to come to at the opening, in the night before which it was worked out last. */
export const rehearsal = mysqlTable(
  'rehearsal',
  {
    studentId: int()
      .notNull()
      .references(() => student.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    /** The day on campus. */
    onDate: date({ mode: 'string' }).notNull(),
    /** Null where nothing was on it. */
    said: json().$type<RehearsalSaid>()
  },
  (t) => [primaryKey({ columns: [t.studentId, t.termId] })]
)

/** A place in the line of a section. Who waits for a section and its lab stands in the lines of those that were full. */
export const waitlistPlace = mysqlTable(
  'waitlist_place',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    sectionId: int()
      .notNull()
      .references(() => section.id),
    joinedAt: instant().notNull(),
    /** Codes of all that is waited for: a section with its components. */
    sections: json().$type<string[]>().notNull()
  },
  (t) => [
    uniqueIndex('waitlist_once').on(t.studentId, t.sectionId),
    index('waitlist_line').on(t.sectionId, t.joinedAt)
  ]
)

const OFFER_ANSWERS = ['accepted', 'declined', 'lapsed'] as const

/** Seats held for a time for somebody who stood in line. Without an answer it is open. */
export const seatOffer = mysqlTable(
  'seat_offer',
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
    /** Codes of all that was waited for. */
    sections: json().$type<string[]>().notNull(),
    offeredAt: instant().notNull(),
    until: instant().notNull(),
    answer: mysqlEnum(OFFER_ANSWERS),
    answeredAt: instant()
  },
  (t) => [
    index('seat_offer_student').on(t.studentId),
    index('seat_offer_until').on(t.answer, t.until),
    check('seat_offer_until', sql`${t.until} > ${t.offeredAt}`)
  ]
)

/** The sections in which an offer holds a seat. */
export const offeredSeat = mysqlTable(
  'offered_seat',
  {
    offerId: int()
      .notNull()
      .references(() => seatOffer.id),
    sectionId: int()
      .notNull()
      .references(() => section.id)
  },
  (t) => [primaryKey({ columns: [t.offerId, t.sectionId] }), index('offered_seat_section').on(t.sectionId)]
)

/**
 * What a run did, kept for good. It is made before the run, with its lines still to be tried, and each of them is
 * written together with its seat: at every moment it says what is held.
 */
export const receipt = mysqlTable(
  'receipt',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    termId: int()
      .notNull()
      .references(() => term.id),
    at: instant().notNull(),
    /** Null where a rule of the term did it. */
    byId: int().references(() => account.id),
    /** Given by the client: the same run asked for again is the same receipt. */
    runKey: varchar({ length: 64 }),
    /** Whether its lines to register go through all together or not at all. */
    whole: boolean().notNull().default(false),
    /** Whether it ran by itself at the opening, as the student had prepared it. */
    armed: boolean().notNull().default(false),
    /** Of a run that an office made for the student: how they agreed to it. */
    consent: varchar({ length: 400 }),
    /** Rules that the office set aside when it placed the student; null where it did not. */
    setAside: json().$type<OfficeOverride[]>(),
    /** By the machine's clock, of which a run that was cut off is known. */
    begunAt: instant().notNull(),
    /** By the machine's clock; null while lines are still to be tried. */
    endedAt: instant()
  },
  (t) => [
    index('receipt_student').on(t.studentId, t.at),
    uniqueIndex('receipt_run').on(t.studentId, t.runKey),
    index('receipt_ended').on(t.endedAt)
  ]
)

export const receiptLine = mysqlTable(
  'receipt_line',
  {
    id: id(),
    receiptId: int()
      .notNull()
      .references(() => receipt.id),
    ordinal: smallint().notNull(),
    courseId: int()
      .notNull()
      .references(() => course.id),
    /** The course that was asked for, where a fallback of another one was taken. */
    insteadOfId: int().references(() => course.id),
    /** Section codes of the line, as they were. Empty for a course without a section. */
    sections: json().$type<string[]>().notNull(),
    /** Section codes of the seat given back for it. */
    gaveBack: json().$type<string[]>().notNull().default([]),
    action: mysqlEnum(LINE_ACTIONS).notNull().default('register'),
    outcome: mysqlEnum(OUTCOMES).notNull(),
    /** Which fallback was taken, counting from 1; its sections stand in the line, the reasons before it in `refusals`. */
    fallback: smallint(),
    /** Credits that were chosen of a range. */
    credits: credits(),
    /** The place in line that was taken. */
    place: smallint(),
    /** What a drop left on the record. */
    mark: varchar({ length: 2 }),
    refusals: json().$type<Refusal[]>().notNull()
  },
  (t) => [uniqueIndex('receipt_line_order').on(t.receiptId, t.ordinal)]
)
