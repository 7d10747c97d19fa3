import { boolean, index, int, mysqlEnum, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { term } from './calendar'
import { id, instant } from './columns'
import { account, student } from './people'
import { programVersion } from './program'

/** An application to graduate, with all programs on record; `live` is true or null, so that a key allows one at a time. */
export const graduation = mysqlTable(
  'graduation',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    /** The degree; where there is none, the first of the programs. */
    programVersionId: int()
      .notNull()
      .references(() => programVersion.id),
    /** The term at whose end it is complete. */
    termId: int()
      .notNull()
      .references(() => term.id),
    state: mysqlEnum(['asked', 'awarded', 'withdrawn']).notNull(),
    live: boolean(),
    askedAt: instant().notNull(),
    awardedAt: instant(),
    awardedById: int().references(() => account.id)
  },
  (t) => [uniqueIndex('graduation_live').on(t.studentId, t.live), index('graduation_state').on(t.state)]
)

/** A transcript that a student has sent to somebody outside. */
export const transcriptOrder = mysqlTable(
  'transcript_order',
  {
    id: id(),
    studentId: int()
      .notNull()
      .references(() => student.id),
    recipient: varchar({ length: 120 }).notNull(),
    email: varchar({ length: 160 }).notNull(),
    /** It waits until the grades of this term are there; null where it is sent as the record is. */
    afterTermId: int().references(() => term.id),
    state: mysqlEnum(['waiting', 'sent', 'withdrawn']).notNull(),
    askedAt: instant().notNull(),
    sentAt: instant()
  },
  (t) => [index('transcript_order_student').on(t.studentId), index('transcript_order_state').on(t.state)]
)
