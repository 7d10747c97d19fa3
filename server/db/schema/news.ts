import { bigint, char, index, int, json, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import type { NewsKind } from '#shared/news/responses'
import { instant } from './columns'
import { account, student } from './people'

/** What others may be looking at has changed: written in the change's own transaction, kept for an hour. */
export const news = mysqlTable(
  'news',
  {
    id: bigint({ mode: 'number' }).autoincrement().primaryKey(),
    /** The machine's time. */
    at: instant().notNull(),
    kind: varchar({ length: 12 }).$type<NewsKind>().notNull(),
    /** Null for what concerns everybody. */
    studentId: int().references(() => student.id),
    accountId: int().references(() => account.id),
    /** The key of the change it comes from, by which whoever made it knows it. */
    changeKey: varchar({ length: 64 }),
    /** The route's version, or the term. */
    about: json().$type<{ route?: number; version?: number; term?: string }>().notNull()
  },
  (t) => [index('news_at').on(t.at)]
)

/** Changes that were made, by the key that the client gave them: sent again, they are answered and not made again. */
export const madeChange = mysqlTable(
  'made_change',
  {
    accountId: int()
      .notNull()
      .references(() => account.id),
    changeKey: varchar({ length: 64 }).notNull(),
    /** SHA-256 of what was asked. */
    asked: char({ length: 64 }).notNull(),
    answer: json(),
    /** The machine's time. */
    at: instant().notNull()
  },
  (t) => [primaryKey({ columns: [t.accountId, t.changeKey] }), index('made_change_at').on(t.at)]
)
