import { index, mysqlEnum, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { GUIDANCE_ABOUT } from '#shared/catalog/guidance'
import { id } from './columns'

/** The institution's own short texts; what each is about is named by its code. */
export const guidance = mysqlTable(
  'guidance',
  {
    id: id(),
    about: mysqlEnum(GUIDANCE_ABOUT).notNull(),
    /** Of a program, a term, a course or a kind of finding; empty where it is for everybody. */
    key: varchar({ length: 16 }).notNull(),
    title: varchar({ length: 80 }).notNull(),
    text: varchar({ length: 600 }).notNull(),
    link: varchar({ length: 300 })
  },
  (t) => [index('guidance_about').on(t.about, t.key)]
)
