/** What the writing of an import's tables shares: the rows that are here by our own ids, and the journal. */
import { eq } from 'drizzle-orm'
import type { Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import type { RosterItem } from '#shared/oneRoster/plan'
import type { Table } from '#shared/oneRoster/tables'
import { Journal } from './journal'
import { idOf } from './rosterIds'

export interface ApplyContext {
  now: number
  importId: number
  /** Who brings it. */
  by: number
}

export type OnTable = (work: Apply, items: readonly RosterItem[]) => Promise<void>
/** Of each table the lines that change something. */
export type Wanted = ReadonlyMap<Table, readonly RosterItem[]>

/** Ids of rows that are here, by what they are. */
export class Apply {
  readonly journal: Journal
  private readonly maps = new Map<string, Promise<Map<string, number>>>()

  constructor(
    readonly tx: Transaction,
    readonly at: ApplyContext,
    readonly wanted: Wanted
  ) {
    this.journal = new Journal(tx, at.importId)
  }

  /** Rows of a table by our own ids, read once until something is written. */
  rows(table: keyof typeof READERS): Promise<Map<string, number>> {
    let map = this.maps.get(table)
    if (!map) this.maps.set(table, (map = READERS[table](this.tx).then((pairs) => new Map(pairs))))
    return map
  }

  /** What was written is to be found by what comes next. */
  readAnew(): void {
    this.maps.clear()
  }
}

type Pairs = [string, number][]
export const READERS = {
  campus: async (tx: Transaction): Promise<Pairs> =>
    (await tx.select().from(t.campus)).map((one) => [idOf.campus(one.code), one.id]),
  department: async (tx: Transaction): Promise<Pairs> =>
    (await tx.select().from(t.department)).map((one) => [idOf.department(one.name), one.id]),
  subject: async (tx: Transaction): Promise<Pairs> =>
    (await tx.select().from(t.subject)).map((one) => [one.code, one.id]),
  course: async (tx: Transaction): Promise<Pairs> =>
    (await tx.select({ id: t.course.id, code: t.course.code }).from(t.course)).map((one) => [
      idOf.course(one.code),
      one.id
    ]),
  term: async (tx: Transaction): Promise<Pairs> =>
    (await tx.select().from(t.term)).map((one) => [idOf.term(one.code), one.id]),
  teacher: async (tx: Transaction): Promise<Pairs> =>
    (await tx.select().from(t.instructor)).map((one) => [idOf.teacher(one.mail), one.id]),
  student: async (tx: Transaction): Promise<Pairs> =>
    (await tx.select({ id: t.student.id, number: t.student.number }).from(t.student)).map((one) => [
      idOf.student(one.number),
      one.id
    ]),
  section: async (tx: Transaction): Promise<Pairs> =>
    (
      await tx
        .select({ id: t.section.id, number: t.section.number, term: t.term.code, course: t.course.code })
        .from(t.section)
        .innerJoin(t.term, eq(t.term.id, t.section.termId))
        .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    ).map((one) => [idOf.class(one.term, one.course, one.number), one.id])
}

export const ofChange = (items: readonly RosterItem[], change: 'new' | 'changed') =>
  items.filter((one) => one.change === change)

/** The id of a row that has to be there by now. */
export async function oneOf(work: Apply, table: keyof typeof READERS, id: string): Promise<number> {
  const found = (await work.rows(table)).get(id)
  if (found === undefined) throw new Error(`${table} ${id} is not there`)
  return found
}
