/** The terms of registration of Harrowmere College, and who has accepted them. */
import { campusTime } from './college'

/** From the first term that asks for them. */
const FROM = '2027-08-01'
const ACCEPTED_AT = campusTime('2027-03-22T12:00')

const TEXT = [
  'With a seat you take on what it costs: the tuition and fees of the term, due by its date of payment.',
  'Staying away from a class gives no seat back and lowers nothing that is owed; dropping the course by the dates of the term does.',
  'Seats that are not paid for after the date of payment are given back and offered to those in line.',
  'What you register is yours alone: a seat is neither traded nor held for somebody else.'
].join('\n')

export const agreementOf = ({ startsOn }: { startsOn: string }): string | null =>
  startsOn < FROM ? null : TEXT

/** Of everybody but the student whose first registration the demo shows: she has them still before her. */
export function acceptedBy(
  students: readonly { id: number; name: string }[],
  terms: readonly { code: string; startsOn: string }[],
  termId: ReadonlyMap<string, number>
) {
  const asking = terms.flatMap((term) => {
    const text = agreementOf(term)
    return text === null ? [] : [{ termId: termId.get(term.code), text }]
  })
  return students
    .filter((one) => one.name !== 'Imke Varga')
    .flatMap((one) =>
      asking.map((term) => ({ ...term, studentId: one.id, acceptedAt: ACCEPTED_AT, byId: one.id }))
    )
}
