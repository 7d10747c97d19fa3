import { asc } from 'drizzle-orm'
import type { Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'

/** All blocks, by their codes. */
export function readBlocks(db: Reader): Promise<{ code: string; title: string }[]> {
  return db.select({ code: t.block.code, title: t.block.title }).from(t.block).orderBy(asc(t.block.code))
}
