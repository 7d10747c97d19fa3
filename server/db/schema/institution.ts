import {
  index,
  int,
  json,
  mysqlTable,
  primaryKey,
  smallint,
  uniqueIndex,
  varchar
} from 'drizzle-orm/mysql-core'
import type { GradeSpec } from '#core/grades'
import type { RequestPolicy } from '#shared/advising/asking'
import { id } from './columns'

export const institution = mysqlTable('institution', {
  id: id(),
  name: varchar({ length: 120 }).notNull(),
  /** IANA name; openings are shown in it. */
  timeZone: varchar({ length: 64 }).notNull(),
  /** Its grade scale; null where that is the common one. */
  grades: json().$type<GradeSpec[]>(),
  /** Who decides requests, of the kinds of which it is not as is usual. */
  requestPolicy: json().$type<Partial<RequestPolicy>>(),
  /** Counts how often what the college is was written. */
  version: int().notNull().default(1)
})

export const campus = mysqlTable(
  'campus',
  {
    id: id(),
    institutionId: int()
      .notNull()
      .references(() => institution.id),
    code: varchar({ length: 12 }).notNull(),
    name: varchar({ length: 80 }).notNull(),
    /** Null: the institution's. */
    timeZone: varchar({ length: 64 })
  },
  (t) => [uniqueIndex('campus_code').on(t.code)]
)

export const campusTravel = mysqlTable(
  'campus_travel',
  {
    fromId: int()
      .notNull()
      .references(() => campus.id),
    toId: int()
      .notNull()
      .references(() => campus.id),
    minutes: smallint().notNull()
  },
  (t) => [primaryKey({ columns: [t.fromId, t.toId] })]
)

export const building = mysqlTable(
  'building',
  {
    id: id(),
    campusId: int()
      .notNull()
      .references(() => campus.id),
    name: varchar({ length: 80 }).notNull()
  },
  (t) => [uniqueIndex('building_name').on(t.campusId, t.name)]
)

export const room = mysqlTable(
  'room',
  {
    id: id(),
    buildingId: int()
      .notNull()
      .references(() => building.id),
    name: varchar({ length: 40 }).notNull(),
    seats: smallint().notNull()
  },
  (t) => [uniqueIndex('room_name').on(t.buildingId, t.name), index('room_building').on(t.buildingId)]
)

/** Decides in the name of its subjects. */
export const department = mysqlTable('department', {
  id: id(),
  name: varchar({ length: 80 }).notNull()
})
