/** Rows that an import writes, with what stood there before: by it the import is undone. */
import { and, desc, eq, inArray, isNull, type SQL } from 'drizzle-orm'
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import type { Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { isReferenced } from '#server/db/referenced'
import { Refused } from '#server/http/problem'

/** The tables that an import writes to, each with the columns by which a row of it is known. */
const KEYS = {
  institution: [t.institution, ['id']],
  campus: [t.campus, ['id']],
  department: [t.department, ['id']],
  subject: [t.subject, ['id']],
  course: [t.course, ['id']],
  term: [t.term, ['id']],
  session: [t.session, ['id']],
  instructor: [t.instructor, ['id']],
  section: [t.section, ['id']],
  meeting: [t.meeting, ['id']],
  sectionInstructor: [t.sectionInstructor, ['sectionId', 'instructorId']],
  account: [t.account, ['id']],
  student: [t.student, ['id']],
  studentProgram: [t.studentProgram, ['studentId', 'programVersionId']],
  route: [t.route, ['id']],
  recordCourse: [t.recordCourse, ['id']]
} as const
export type Written = keyof typeof KEYS

type Values = Record<string, unknown>
interface Step {
  table: Written
  key: Values
  before: Values | null
  after: Values
}

const ROWS_A_STATEMENT = 500

/** What is compared when a change is taken back: JSON of both, since dates are kept as text. */
const asKept = (value: unknown): string => JSON.stringify(value ?? null)

export class Journal {
  private steps: Step[] = []
  private ordinal = 0

  constructor(
    private readonly tx: Transaction,
    private readonly importId: number
  ) {}

  /** @returns the ids of the rows, in their order; of a table without ids nothing that is of use */
  async insert(table: Written, rows: readonly Values[]): Promise<number[]> {
    const [of, keys] = KEYS[table]
    const ids: number[] = []
    for (let i = 0; i < rows.length; i += ROWS_A_STATEMENT) {
      const lot = rows.slice(i, i + ROWS_A_STATEMENT)
      const isNumbered = keys[0] === 'id'
      const statement = this.tx.insert(of).values(lot as never)
      const made = isNumbered ? ((await statement.$returningId()) as { id: number }[]) : (await statement, [])
      ids.push(...made.map((one) => one.id))
      for (const [n, row] of lot.entries()) {
        const key = isNumbered
          ? { id: made[n]!.id }
          : Object.fromEntries(keys.map((name) => [name, row[name]]))
        await this.keep({ table, key, before: null, after: {} })
      }
    }
    return ids
  }

  /** Changes a row that has an id. */
  async update(table: Written, id: number, after: Values): Promise<void> {
    const [of] = KEYS[table]
    const where = eq((of as unknown as { id: AnyMySqlColumn }).id, id)
    const [row] = (await this.tx
      .select()
      .from(of as typeof t.course)
      .where(where)
      .for('update')) as Values[]
    const before = Object.fromEntries(Object.keys(after).map((name) => [name, row![name]]))
    await this.tx
      .update(of)
      .set(after as never)
      .where(where)
    await this.keep({ table, key: { id }, before, after })
  }

  private async keep(step: Step): Promise<void> {
    this.steps.push(step)
    if (this.steps.length >= ROWS_A_STATEMENT) await this.end()
  }

  /** What was written is kept. */
  async end(): Promise<void> {
    if (!this.steps.length) return
    await this.tx
      .insert(t.dataImportSteps)
      .values({ importId: this.importId, ordinal: this.ordinal++, steps: this.steps })
    this.steps = []
  }
}

const whereOf = ({ table, key }: Pick<Step, 'table' | 'key'>): SQL => {
  const [of] = KEYS[table]
  const columns = of as unknown as Record<string, AnyMySqlColumn>
  return and(
    ...Object.entries(key).map(([name, value]) =>
      value === null ? isNull(columns[name]!) : eq(columns[name]!, value)
    )
  )!
}

/**
 * Takes back what an import has written, the last first.
 *
 * @throws Refused where something rests on what it has made, or what it has changed was changed since
 */
export async function takeBack(tx: Transaction, importId: number): Promise<void> {
  const lots = await tx
    .select({ ordinal: t.dataImportSteps.ordinal })
    .from(t.dataImportSteps)
    .where(eq(t.dataImportSteps.importId, importId))
    .orderBy(desc(t.dataImportSteps.ordinal))
  for (const { ordinal } of lots) {
    const [lot] = await tx
      .select({ steps: t.dataImportSteps.steps })
      .from(t.dataImportSteps)
      .where(and(eq(t.dataImportSteps.importId, importId), eq(t.dataImportSteps.ordinal, ordinal)))
    for (const run of runsOf((lot!.steps as Step[]).toReversed()))
      await (run[0]!.before ? restore(tx, run[0]!) : remove(tx, run))
  }
}

/** Steps one by one, but for rows of one table that were made one after another: these go together. */
function runsOf(steps: readonly Step[]): Step[][] {
  const runs: Step[][] = []
  for (const step of steps) {
    const last = runs.at(-1)?.at(-1)
    const isAlike = last && !last.before && !step.before && last.table === step.table && 'id' in step.key
    if (isAlike) runs.at(-1)!.push(step)
    else runs.push([step])
  }
  return runs
}

async function restore(tx: Transaction, step: Step): Promise<void> {
  const [of] = KEYS[step.table]
  const [row] = (await tx
    .select()
    .from(of as typeof t.course)
    .where(whereOf(step))
    .for('update')) as Values[]
  const isAsLeft =
    row && Object.entries(step.after).every(([name, value]) => asKept(row[name]) === asKept(value))
  if (!isAsLeft)
    throw new Refused(
      409,
      'changedSince',
      `Something that it changed was changed since (${step.table} ${String(step.key.id)}); nothing is undone.`
    )
  await tx
    .update(of)
    .set(step.before as never)
    .where(whereOf(step))
}

async function remove(tx: Transaction, run: readonly Step[]): Promise<void> {
  const [{ table, key }] = run as [Step]
  const [of] = KEYS[table]
  const ids = run.map((one) => one.key.id as number)
  try {
    const { id } = of as typeof t.course
    // A component before the section that it belongs to.
    if ('id' in key) await tx.delete(of).where(inArray(id, ids)).orderBy(desc(id))
    else await tx.delete(of).where(whereOf(run[0]!))
  } catch (error) {
    if (!isReferenced(error)) throw error
    throw new Refused(409, 'used', `Something rests on what it made (${table}); nothing is undone.`)
  }
}
