/** What is owed, as it stands in the way of other things and as it is told. */
import type { Term } from '#core/catalog'
import { releaseDay, type Cents, type Unpaid } from '#core/charges'
import { dayNumber, isoDate, type Instant, type IsoDate } from '#core/time'
import type { TermView } from '#shared/catalog/responses'
import type { StudentRecord } from '#shared/record/responses'
import { campusDate } from '#shared/when'
import { owedOf, type TermAccount } from './responses'

/** A student's holds for a term: those that offices placed, and what of an earlier term is unpaid after its due date. */
export function holdsFor(
  { holds, accounts }: Pick<StudentRecord, 'holds' | 'accounts'>,
  terms: readonly Pick<TermView, 'code' | 'name' | 'start' | 'paymentDueOn'>[],
  term: Pick<Term, 'start'> | undefined,
  today: IsoDate
): StudentRecord['holds'] {
  const unpaid = accounts.flatMap((account) => {
    const of = terms.find((one) => one.code === account.term)
    const owed = owedOf(account)
    if (!of || !term || owed <= 0) return []
    const isEarlier = dayNumber(of.start) < dayNumber(term.start)
    if (!isEarlier || dayNumber(today) <= dayNumber(of.paymentDueOn)) return []
    return [
      {
        title: `Balance of ${of.name}`,
        office: 'the cashier',
        amount: owed / 100,
        stopsRegistration: true,
        stopsTranscript: false,
        howToLift: `Pay it on Register, ${of.name}.`
      }
    ]
  })
  return [...holds, ...unpaid]
}

/** What is still to be paid: what the cashier has not answered yet counts for the student. */
export const openOf = (account: TermAccount): Cents => owedOf(account) - account.asked

/** How an account stands to its due date. */
export function unpaidOf(
  { notices }: Pick<TermAccount, 'notices'>,
  { paymentDueOn, addEndsAt }: Pick<TermView, 'paymentDueOn' | 'addEndsAt'>,
  now: Instant,
  zone: string
): Unpaid {
  const day = (at: Instant) => dayNumber(campusDate(at, zone))
  return {
    due: dayNumber(paymentDueOn),
    today: day(now),
    lastAdd: day(addEndsAt - 1),
    notices: notices.map(day)
  }
}

/**
 * The day on which seats of a term are given back if nothing is paid until then; undefined where none are. Those that an
 * office placed stay.
 */
export function seatsLostOn(
  { accounts, held }: Pick<StudentRecord, 'accounts' | 'held'>,
  term: TermView,
  now: Instant,
  zone: string
): IsoDate | undefined {
  const account = accountOf({ accounts }, term.code)
  const isAtRisk = held.some((seat) => seat.term === term.code && !seat.placedByOffice)
  if (!term.prices?.releasesUnpaid || !account || openOf(account) <= 0 || !isAtRisk) return undefined
  const day = releaseDay(unpaidOf(account, term, now, zone))
  return day === undefined ? undefined : isoDate(day)
}

/** The account of a term; undefined where nothing was ever charged. */
export function accountOf({ accounts }: Pick<StudentRecord, 'accounts'>, term: string | undefined) {
  return accounts.find((one) => one.term === term)
}
