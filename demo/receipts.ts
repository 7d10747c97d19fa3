/** The receipts of seats that are held as the demo begins, with what the log tells of them. */
import { groupBy } from '#server/db/groupBy'
import type { DemoSeat } from './enrolment'

export interface DemoReceipt {
  id: number
  student: number
  term: string
  at: Date
  office: boolean
  lines: { course: string; sections: string[] }[]
}

/** One for each student, term and instant. */
export function receiptsOf(seats: readonly DemoSeat[]): DemoReceipt[] {
  const runs = groupBy(
    seats,
    (seat) => `${seat.student} ${seat.section.term} ${seat.at.getTime()} ${seat.office}`
  )
  return [...runs.values()]
    .sort((a, b) => a[0]!.at.getTime() - b[0]!.at.getTime())
    .map((own, i) => {
      const { student, section, at, office } = own[0]!
      const lines = [...groupBy(own, (seat) => seat.section.course)].map(([course, parts]) => ({
        course,
        sections: parts.map((seat) => seat.section.code)
      }))
      return { id: i + 1, student, term: section.term, at, office, lines }
    })
}
