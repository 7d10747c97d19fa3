/** Views of a desk that an advisor has kept by a name: their own, and seen by nobody else. */
import { asc, eq } from 'drizzle-orm'
import { all, untilThrough, type Database, type Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'
import type { KeptDeskView } from '#shared/advising/desk'
import type { DeskViewSaid } from '#shared/advising/requests'

const MOST = 20

export async function readDeskViews(db: Reader, account: number): Promise<KeptDeskView[]> {
  const rows = await db
    .select()
    .from(t.deskView)
    .where(eq(t.deskView.accountId, account))
    .orderBy(asc(t.deskView.id))
  return rows.map(({ id, name, view }) => ({ id, name, ...view }))
}

/** Keeps a view; one of the same name gives way. @throws Refused where there are too many */
export async function keepDeskView(
  db: Database,
  account: number,
  { name, ...view }: DeskViewSaid
): Promise<void> {
  const kept = await readDeskViews(db, account)
  if (kept.length >= MOST && !kept.some((one) => one.name === name))
    throw new Refused(422, 'tooMany', `${MOST} views are kept at most. Let one go first.`, [
      { field: 'name', message: 'has to be that of a view which is kept already' }
    ])
  await untilThrough(() =>
    db.insert(t.deskView).values({ accountId: account, name, view }).onDuplicateKeyUpdate({ set: { view } })
  )
}

/** @throws Refused where there is none of theirs */
export async function dropDeskView(db: Database, account: number, id: number): Promise<void> {
  const [done] = await untilThrough(() =>
    db.delete(t.deskView).where(all(eq(t.deskView.id, id), eq(t.deskView.accountId, account)))
  )
  if (!done.affectedRows) throw new Refused(404, 'noView', 'There is no such view any more.')
}
