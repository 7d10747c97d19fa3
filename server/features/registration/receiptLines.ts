/** The lines of a receipt, and the run that they are of. */
import { eq } from 'drizzle-orm'
import type { Refusal } from '#core/findings'
import type { OfficeOverride } from '#core/registration'
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { sectionsOf, type Option } from '#core/week'
import type { Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { courseIds } from '#server/features/catalog/catalog'
import type { ReceiptLine } from '#shared/registration/responses'

export interface RunUnderWay {
  /** Of its receipt. */
  id: number
  student: StudentId
  term: TermCode
}

export const codesOf = (option: Option) => sectionsOf(option).map((section) => section.code as string)

/** A line of a receipt, with what was not said left empty. */
export function lineOf(
  course: CourseCode,
  outcome: ReceiptLine['outcome'],
  over: Partial<ReceiptLine> = {}
): ReceiptLine {
  return {
    course,
    insteadOf: null,
    action: 'register',
    sections: [],
    gaveBack: [],
    outcome,
    fallback: null,
    credits: null,
    place: null,
    mark: null,
    refusals: [],
    ...over
  }
}

/** Writes a receipt with its lines; one that is not `ended` is of a run under way. @returns its number */
export async function insertReceipt(
  tx: Transaction,
  {
    student,
    term,
    by,
    key,
    now,
    ended,
    whole = false,
    armed = false,
    consent = null,
    setAside = null
  }: {
    student: StudentId
    /** Of the table of terms. */
    term: number
    /** Null where a rule of the term did it. */
    by: number | null
    key: string | null
    now: Instant
    ended: boolean
    /** Of a run whose lines go through all together or not at all. */
    whole?: boolean
    /** Of a run that began by itself at the opening. */
    armed?: boolean
    /** How the student agreed, where somebody else made it. */
    consent?: string | null
    /** Where an office placed the student: what it set aside. */
    setAside?: OfficeOverride[] | null
  },
  lines: readonly ReceiptLine[]
): Promise<number> {
  const [made] = await tx
    .insert(t.receipt)
    .values({
      studentId: student,
      termId: term,
      at: new Date(now),
      byId: by,
      runKey: key,
      whole,
      armed,
      consent,
      setAside,
      begunAt: new Date(),
      endedAt: ended ? new Date() : null
    })
    .$returningId()
  await addLines(tx, made!.id, lines, 0)
  return made!.id
}

/** Writes lines of a receipt, after those that it has. */
export async function addLines(
  tx: Transaction,
  receipt: number,
  lines: readonly ReceiptLine[],
  from?: number
): Promise<void> {
  const ids = await courseIds(tx, [...new Set(lines.map((line) => line.course))])
  const first = from ?? (await tx.$count(t.receiptLine, eq(t.receiptLine.receiptId, receipt)))
  await tx.insert(t.receiptLine).values(
    lines.map(({ course, insteadOf: _, ...line }, i) => ({
      ...line,
      receiptId: receipt,
      ordinal: first + i,
      courseId: ids.get(course)!
    }))
  )
}

export const refusedLine = (option: Option, refusals: Refusal[]): ReceiptLine =>
  lineOf(option.course, 'refused', { sections: codesOf(option), refusals })

export function fullRefusal({ main }: Option): Refusal {
  return { code: 'full', section: main.code, kind: main.kind, capacity: main.capacity, waiting: main.waiting }
}
