/** Column kinds that many tables share. */
import { datetime, decimal, int } from 'drizzle-orm/mysql-core'

export const id = () => int().autoincrement().primaryKey()
/** An instant, in UTC, to the millisecond. */
export const instant = () => datetime({ mode: 'date', fsp: 3 })
export const credits = () => decimal({ mode: 'number', precision: 4, scale: 1 })
export const money = () => decimal({ mode: 'number', precision: 9, scale: 2 })
