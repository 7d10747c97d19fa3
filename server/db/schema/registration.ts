import { sql } from 'drizzle-orm'
import {
  boolean,
  check,
  index,
  int,
  json,
  mysqlEnum,
  mysqlTable,
  smallint,
  uniqueIndex,
  varchar
} from 'drizzle-orm/mysql-core'
import type { Refusal } from '#core/findings'
import type { Standing } from '#core/requisites'
import { OUTCOMES } from '#shared/registration/outcomes'
import { term } from './calendar'
import { course } from './catalog'
import { id, instant } from './columns'
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
    placedByOffice: boolean().notNull().default(false)
  },
  (t) => [
    uniqueIndex('registration_once').on(t.studentId, t.sectionId),
    index('registration_section').on(t.sectionId)
  ]
)

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
    joinedAt: instant().notNull()
  },
  (t) => [
    uniqueIndex('waitlist_once').on(t.studentId, t.sectionId),
    index('waitlist_line').on(t.sectionId, t.joinedAt)
  ]
)

export const seatOffer = mysqlTable(
  'seat_offer',
  {
    id: id(),
    waitlistPlaceId: int()
      .notNull()
      .references(() => waitlistPlace.id),
    offeredAt: instant().notNull(),
    until: instant().notNull(),
    answer: mysqlEnum(['taken', 'declined', 'lapsed']),
    answeredAt: instant()
  },
  (t) => [check('seat_offer_until', sql`${t.until} > ${t.offeredAt}`)]
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
    byId: int()
      .notNull()
      .references(() => account.id),
    /** Given by the client: the same run asked for again is the same receipt. */
    runKey: varchar({ length: 64 }),
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
    /** Section codes of the line, as they were. Empty for a course without a section. */
    sections: json().$type<string[]>().notNull(),
    /** Section codes of the seat given back for it. */
    gaveBack: json().$type<string[]>().notNull().default([]),
    outcome: mysqlEnum(OUTCOMES).notNull(),
    refusals: json().$type<Refusal[]>().notNull()
  },
  (t) => [uniqueIndex('receipt_line_order').on(t.receiptId, t.ordinal)]
)
