/** The lines of a receipt, and the run that they are of. */
import type { Refusal } from '#core/findings'
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import { sectionsOf, type Option } from '#core/week'
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
    action: 'register',
    sections: [],
    gaveBack: [],
    outcome,
    fallback: null,
    place: null,
    mark: null,
    refusals: [],
    ...over
  }
}

export const refusedLine = (option: Option, refusals: Refusal[]): ReceiptLine =>
  lineOf(option.course, 'refused', { sections: codesOf(option), refusals })

export function fullRefusal({ main }: Option): Refusal {
  return { code: 'full', section: main.code, kind: main.kind, capacity: main.capacity, waiting: main.waiting }
}
