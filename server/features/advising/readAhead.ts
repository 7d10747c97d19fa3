/**
 * What desks ask for is worked out before somebody asks: of the students whose record has changed, and of all of them when
 * a new day or a deadline makes their standing another one. A little at a time, so that nobody waits for it.
 */
import { and, asc, gt, inArray, isNotNull, max, notInArray } from 'drizzle-orm'
import { deadlines } from '#core/calendar'
import { readStudentRecords } from '#server/features/record/studentRecords'
import type { Database } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { campusNow } from '#server/gateways/clock'
import { READS } from '#server/http/access'
import { momentOf, type CatalogContext } from '#shared/catalog/context'
import { deskReadings } from './deskReadings'

/** Of a minute, at most so long is given to it. */
const TURN_MS = 2_000
const AT_ONCE = 20

export class ReadingAhead {
  /** The day, and how many deadlines have passed, for which everybody was or is to be read. */
  private stage: string | undefined
  /** The last entry of the log that is known. */
  private upTo = 0
  private readonly left = new Set<number>()

  /** @param most milliseconds of a turn */
  constructor(private readonly most: () => number = () => TURN_MS) {}

  /** One turn; the first only looks where things stand, for a server that starts has enough to do. */
  async turn(db: Database, catalogContext: CatalogContext): Promise<void> {
    const isFirst = this.stage === undefined
    await this.look(db, catalogContext)
    if (isFirst) return
    const ends = performance.now() + this.most()
    while (this.left.size && performance.now() < ends) {
      const some = [...this.left].slice(0, AT_ONCE)
      const now = await campusNow(db)
      await deskReadings(db, await readStudentRecords(db, some, 'programAdvisor'), catalogContext, now)
      for (const id of some) this.left.delete(id)
    }
  }

  /** How many wait to be read. */
  get waiting(): number {
    return this.left.size
  }

  private async look(db: Database, catalogContext: CatalogContext): Promise<void> {
    const now = await campusNow(db)
    const passed = deadlines(catalogContext.terms, []).filter((one) => one <= now).length
    const stage = `${momentOf(now, catalogContext.zone).today} ${passed}`
    const [last] = await db.select({ id: max(t.eventLog.id) }).from(t.eventLog)
    const before = this.upTo
    this.upTo = last?.id ?? 0
    const advised = db.selectDistinct({ id: t.advising.studentId }).from(t.advising)
    const ids =
      stage === this.stage
        ? await db
            .selectDistinct({ id: t.eventLog.studentId })
            .from(t.eventLog)
            .where(
              and(
                gt(t.eventLog.id, before),
                isNotNull(t.eventLog.studentId),
                notInArray(t.eventLog.action, [...READS]),
                inArray(t.eventLog.studentId, advised)
              )
            )
        : await advised.orderBy(asc(t.advising.studentId))
    this.stage = stage
    for (const { id } of ids) if (id !== null) this.left.add(id)
  }
}
