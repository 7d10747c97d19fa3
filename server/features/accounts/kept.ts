/** All that is kept of a person, table by table, as it lies in the database; keys, and what is said among advisors, left out. */
import { and, asc, eq, getTableColumns, inArray, notInArray, or, type SQL } from 'drizzle-orm'
import { getTableConfig, MySqlTable, type AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import type { Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import type { Who } from '#shared/accounts/responses'
import type { KeptOfPerson } from '#shared/accounts/kept'
import { AMONG_ADVISORS } from '#shared/mail/mails'

/** Held for the working of the server, and worked out or made anew from the rest. */
export const LEFT_OUT: ReadonlySet<MySqlTable> = new Set<MySqlTable>([t.deskReading, t.madeChange, t.news])

/** What is kept of a person by what it is part of; what names the person itself needs no line. */
export const PARTS: readonly (readonly [part: MySqlTable, by: AnyMySqlColumn, whole: MySqlTable])[] = [
  [t.plannedCourse, t.plannedCourse.routeId, t.route],
  [t.routeStep, t.routeStep.routeId, t.route],
  [t.pickedSection, t.pickedSection.draftWeekId, t.draftWeek],
  [t.receiptLine, t.receiptLine.receiptId, t.receipt],
  [t.offeredSeat, t.offeredSeat.offerId, t.seatOffer],
  [t.requestHandedOn, t.requestHandedOn.requestId, t.request],
  [t.remark, t.remark.threadId, t.thread],
  [t.remarkNamed, t.remarkNamed.remarkId, t.remark],
  [t.advisorAway, t.advisorAway.advisorId, t.advisor],
  [t.offeredTime, t.offeredTime.advisorId, t.advisor],
  [t.advisorCalendar, t.advisorCalendar.advisorId, t.advisor]
]

/** What nobody is told: whoever has it could act as the person, or look in as they do. */
const isSecret = (name: string) => /hash|secret|^key$|[a-z]Key$/i.test(name) && name !== 'aboutKey'

type Row = Record<string, unknown>

/** @param who whose data it is: a student's record with it, where they are one */
export async function keptOf(db: Reader, who: Who): Promise<KeptOfPerson['tables']> {
  const rows = new Map<MySqlTable, Row[]>()
  for (const table of tables()) {
    const where = ofPerson(table, who)
    if (where) rows.set(table, await read(db, table, where))
  }
  for (const [part, by, whole] of PARTS) {
    const ids = (rows.get(whole) ?? []).map((row) => row.id as number)
    if (ids.length)
      rows.set(part, apart([...(rows.get(part) ?? []), ...(await read(db, part, inArray(by, ids)))]))
  }
  const names = new Names(db, [...rows])
  const told: KeptOfPerson['tables'] = {}
  for (const [table, all] of rows)
    if (all.length) told[getTableConfig(table).name] = await names.told(table, all)
  return told
}

/** Each row once. */
const apart = (rows: readonly Row[]): Row[] => [
  ...new Map(rows.map((row) => [JSON.stringify(row), row])).values()
]

/** Every table of the schema, in its order. */
const tables = (): MySqlTable[] =>
  (Object.values(t) as unknown[]).filter(
    (one): one is MySqlTable => one instanceof MySqlTable && !LEFT_OUT.has(one)
  )

const read = (db: Reader, table: MySqlTable, where: SQL): Promise<Row[]> => {
  const { id } = getTableColumns(table)
  const query = db.select().from(table).where(where)
  return id ? query.orderBy(asc(id)) : query
}

/** Which rows of a table are of the person by a column of their own. */
function ofPerson(table: MySqlTable, { id: account, student }: Who): SQL | undefined {
  const { id, studentId, accountId } = getTableColumns(table)
  if (table === t.account) return eq(t.account.id, account)
  const is = [
    student === null ? undefined : studentId ? eq(studentId, student) : undefined,
    student !== null && table === t.student ? eq(id!, student) : undefined,
    accountId ? eq(accountId, account) : undefined
  ].filter((one) => one !== undefined)
  if (!is.length) return undefined
  return and(or(...is), ...hiddenOf(table, student !== null))
}

function hiddenOf(table: MySqlTable, isStudent: boolean): SQL[] {
  if (!isStudent) return []
  if (table === t.thread) return [eq(t.thread.advisorsOnly, false)]
  return table === t.eventLog ? [notInArray(t.eventLog.action, [...AMONG_ADVISORS])] : []
}

type Naming = (db: Reader, ids: number[]) => Promise<(readonly [number, string])[]>
/** By a column of the table itself. */
const by =
  (table: MySqlTable, id: AnyMySqlColumn, name: AnyMySqlColumn): Naming =>
  async (db, ids) =>
    (await db.select({ id, name }).from(table).where(inArray(id, ids))).map((one) => [
      Number(one.id),
      String(one.name)
    ])

/** What stands for a number in other tables: a course by its code, a person by their name. */
const NAMED = new Map<MySqlTable, Naming>([
  [t.course, by(t.course, t.course.id, t.course.code)],
  [t.term, by(t.term, t.term.id, t.term.code)],
  [t.section, by(t.section, t.section.id, t.section.code)],
  [t.campus, by(t.campus, t.campus.id, t.campus.code)],
  [t.account, by(t.account, t.account.id, t.account.name)],
  [
    t.advisor,
    async (db, ids) => {
      const accounts = eq(t.account.id, t.advisor.accountId)
      const found = db.select({ id: t.advisor.id, name: t.account.name }).from(t.advisor)
      return (await found.innerJoin(t.account, accounts).where(inArray(t.advisor.id, ids))).map((one) => [
        one.id,
        one.name
      ])
    }
  ],
  [
    t.programVersion,
    async (db, ids) => {
      const { id, catalogYear } = t.programVersion
      const found = db.select({ id, code: t.program.code, catalogYear }).from(t.programVersion)
      const programs = eq(t.program.id, t.programVersion.programId)
      return (await found.innerJoin(t.program, programs).where(inArray(id, ids))).map((one) => [
        one.id,
        `${one.code} ${one.catalogYear}`
      ])
    }
  ]
])

/** Names in the place of the numbers by which rows point at others. */
class Names {
  private readonly known = new Map<MySqlTable, Promise<ReadonlyMap<number, string>>>()

  constructor(
    private readonly db: Reader,
    private readonly rows: readonly (readonly [MySqlTable, readonly Row[]])[]
  ) {}

  /** Rows as they are told: without secrets, names for numbers. */
  async told(table: MySqlTable, rows: readonly Row[]): Promise<Row[]> {
    const points = pointsOf(table)
    const named = new Map(
      await Promise.all([...points].map(async ([name, to]) => [name, await this.namesIn(to)] as const))
    )
    return rows.map((row) =>
      Object.fromEntries(
        Object.entries(row).flatMap(([name, value]) => {
          if (isSecret(name)) return []
          const label = typeof value === 'number' ? named.get(name)?.get(value) : undefined
          return [label === undefined ? [name, value] : [name.replace(/Id$/, ''), label]]
        })
      )
    )
  }

  private namesIn(to: MySqlTable): Promise<ReadonlyMap<number, string>> {
    let known = this.known.get(to)
    if (!known) {
      const ids = this.rows.flatMap(([table, all]) =>
        [...pointsOf(table)].flatMap(([name, other]) =>
          other === to ? all.flatMap((row) => (typeof row[name] === 'number' ? row[name] : [])) : []
        )
      )
      const look = NAMED.get(to)!
      known = ids.length
        ? look(this.db, [...new Set(ids)]).then((all) => new Map(all))
        : Promise.resolve(new Map())
      this.known.set(to, known)
    }
    return known
  }
}

/** Columns by which a table points at what has a name, and where they point. */
function pointsOf(table: MySqlTable): Map<string, MySqlTable> {
  const columns = Object.entries(getTableColumns(table))
  return new Map(
    getTableConfig(table).foreignKeys.flatMap((key) => {
      const { columns: from, foreignTable } = key.reference()
      const name = columns.find(([, column]) => column === from[0])?.[0]
      return name && NAMED.has(foreignTable as MySqlTable)
        ? [[name, foreignTable as MySqlTable] as const]
        : []
    })
  )
}
