/** What is to be paid for a term, and what was given back for want of it. */
import type { TermStanding } from '#core/calendar'
import { FIRST_NOTICE_DAYS } from '#core/charges'
import { dayNumber } from '#core/time'
import { accountOf, openOf, seatsLostOn } from '#shared/charges/balance'
import type { TermAccount } from '#shared/charges/responses'
import { moneyText } from '#shared/charges/texts'
import type { TermView } from '#shared/catalog/responses'
import { dayMonth, dayText } from '#shared/when'
import type { TodoQuestion, Todo } from './task'

/** Days before payment is due from which it is told. */
const PAYMENT_SOON = FIRST_NOTICE_DAYS
/** Days before seats are lost by it from which it is told before all else. */
const PAYMENT_NOW = 4

export function ofPayment(question: TodoQuestion, standing: TermStanding<TermView>): Todo[] {
  const { studentRecord, reading } = question
  const { term, state, adding, ungraded } = standing
  const left = dayNumber(term.paymentDueOn) - dayNumber(reading.today)
  if (term.prices) {
    const account = accountOf(studentRecord, term.code)
    return account ? [...released(account, standing), ...owed(account, question, standing)] : []
  }
  if (!ungraded || (state === 'underWay' && adding === 'ended') || left > PAYMENT_SOON) return []
  return [
    {
      id: `payment ${term.code}`,
      urgency: left < 0 ? 'attention' : 'plain',
      title: left < 0 ? `Payment for ${term.name} was due` : `Payment for ${term.name} is due`,
      text: 'Ridgeway does not know what you have paid; the cashier does.',
      when: left === 0 ? 'today' : dayMonth(term.paymentDueOn)
    }
  ]
}

/** What is owed, the louder the nearer the day on which seats are lost by it. */
function owed(
  account: TermAccount,
  { studentRecord, now, reading, catalogContext }: TodoQuestion,
  { term }: TermStanding<TermView>
): Todo[] {
  const open = openOf(account)
  if (open <= 0) return []
  const left = dayNumber(term.paymentDueOn) - dayNumber(reading.today)
  const lost = seatsLostOn(studentRecord, term, now, catalogContext.zone)
  const isSoon = lost !== undefined && dayNumber(lost) - dayNumber(reading.today) <= PAYMENT_NOW
  return [
    {
      id: `payment ${term.code}`,
      urgency: isSoon ? 'runsOut' : left > PAYMENT_SOON ? 'later' : 'attention',
      title: `${moneyText(open)} is owed for ${term.name}`,
      text:
        lost === undefined
          ? `It ${left < 0 ? 'was' : 'is'} due on ${dayText(term.paymentDueOn)}.`
          : `Seats that are not paid for by then are given back on ${dayText(lost)}.`,
      when: left === 0 ? 'today' : `${left > 0 ? 'by' : 'since'} ${dayMonth(term.paymentDueOn)}`,
      action: { label: 'Pay it', to: 'register' }
    }
  ]
}

/** Seats were lost since they were not paid for: told until some are held again, or can be had no more. */
function released({ releasedAt }: TermAccount, { term, adding, taken }: TermStanding<TermView>): Todo[] {
  if (releasedAt === null || adding === 'ended' || taken) return []
  return [
    {
      id: `released ${term.code}`,
      urgency: 'stops',
      title: `Seats of ${term.name} were given back`,
      text: 'They were not paid for by the due date. What is still free can be registered anew.',
      when: '',
      action: { label: 'See the receipt', to: 'register' }
    }
  ]
}
