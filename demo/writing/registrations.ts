/** The seats that students hold, with their receipts, what was charged and paid for them, and a place in a line. */
import { paymentOf, postings, totalOf } from '#core/charges'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import { courses } from '../catalog'
import { campusTime, terms } from '../college'
import { chargesOf, feeOfCourse, pricesOf } from '../prices'
import { receiptsOf, type DemoReceipt } from '../receipts'
import { registrar } from '../staff'
import type { Put } from './numbers'
import { residencyOf, type World } from './world'

export async function writeRegistrations(put: Put, { seats, waiting, numbers }: World) {
  const { accountId, courseId, termId } = numbers
  await put(
    t.registration,
    seats.map((seat) => ({
      studentId: seat.student,
      sectionId: seat.section.id,
      registeredAt: seat.at,
      byId: seat.office ? accountId.get(registrar.signIn) : seat.student,
      placedByOffice: seat.office
    }))
  )
  const receipts = receiptsOf(seats)
  const byOf = ({ office, student }: DemoReceipt) => (office ? accountId.get(registrar.signIn) : student)
  await put(
    t.receipt,
    receipts.map((one) => ({
      id: one.id,
      studentId: one.student,
      termId: termId.get(one.term),
      at: one.at,
      byId: byOf(one),
      begunAt: one.at,
      endedAt: one.at
    }))
  )
  await put(
    t.receiptLine,
    receipts.flatMap(({ id, lines }) =>
      lines.map(({ course, sections }, ordinal) => ({
        receiptId: id,
        ordinal,
        courseId: courseId.get(course),
        sections,
        outcome: 'registered',
        refusals: []
      }))
    )
  )
  await put(
    t.eventLog,
    receipts.flatMap((one) =>
      one.lines.map(({ course, sections }) => ({
        at: one.at,
        accountId: byOf(one),
        studentId: one.student,
        action: 'registration.made',
        after: { term: one.term, course, sections }
      }))
    )
  )
  await put(t.waitlistPlace, [
    {
      studentId: waiting.student,
      sectionId: waiting.section.id,
      joinedAt: campusTime('2027-04-08T07:03'),
      sections: [waiting.section.code]
    }
  ])
}

export async function writeMoney(put: Put, { seats, students, numbers: { termId } }: World) {
  const charged = chargedSeats({ seats, students })
  // Whoever registered before the demo begins has paid, but for a few.
  const paid = charged.filter(({ student, charges }) => charges.length > 0 && student % 9 !== 0)
  await put(
    t.payment,
    paid.map(({ student, term, at, charges }, i) => ({
      id: i + 1,
      studentId: student,
      termId: termId.get(term),
      amount: totalOf(charges),
      payKey: `demo-${i + 1}`,
      at,
      state: 'taken',
      answeredAt: at,
      byId: student
    }))
  )
  await put(t.ledgerEntry, [
    ...charged.flatMap(({ student, term, at, charges }) =>
      postings(new Map(), charges, 100).map((posting) => ({
        ...posting,
        studentId: student,
        termId: termId.get(term),
        at,
        byId: student
      }))
    ),
    ...paid.map(({ student, term, at, charges }, i) => ({
      ...paymentOf(totalOf(charges)),
      studentId: student,
      termId: termId.get(term),
      at,
      paymentId: i + 1,
      byId: student
    }))
  ])
}

/** What was charged for the seats that students hold, by student and term. */
function chargedSeats({ seats, students }: Pick<World, 'seats' | 'students'>) {
  return [...groupBy(seats, (seat) => `${seat.student} ${seat.section.term}`).values()].map((own) => {
    const { student, section } = own[0]!
    const term = terms.find((one) => one.code === section.term)!
    const who = students[student - 1]!
    const prices = pricesOf(term.startsOn)
    const feeOf = (code: string) => feeOfCourse(courses.find((c) => c.code === code)!)
    return {
      student,
      term: term.code,
      at: new Date(Math.max(...own.map((seat) => seat.at.getTime()))),
      charges: prices ? chargesOf(prices, { level: who.level, residency: residencyOf(who) }, own, feeOf) : []
    }
  })
}
