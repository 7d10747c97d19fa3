import type { Cents } from '#core/charges'
import type { PaymentResult } from '#shared/charges/responses'
import { moneyText } from '#shared/charges/texts'

/**
 * Pays for the term on screen. Where no answer arrives the same payment is sent again by the next press, under the same
 * key: it is taken once.
 */
export function usePaying(paid: () => Promise<void>) {
  const student = useStudent()
  const standing = useStanding()
  const says = ref<string>()
  let unanswered: { key: string; amount: Cents; term: string } | undefined

  async function pay(amount: Cents): Promise<void> {
    const { code: term } = standing.term!
    const same = unanswered?.amount === amount && unanswered.term === term
    const payment = same ? unanswered! : { key: newKey(), amount, term }
    unanswered = payment
    try {
      const { state } = await api<PaymentResult>(`/api/students/${student.view!.student.id}/payments`, {
        method: 'POST',
        body: { term, amount },
        key: payment.key
      })
      unanswered = undefined
      says.value = {
        taken: `${moneyText(amount)} is paid.`,
        asked: `The cashier has not answered yet. ${moneyText(amount)} is asked for again until they do, and taken once.`,
        refused: `The cashier refused ${moneyText(amount)}. Nothing was paid.`
      }[state]
      await paid()
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      if (error.status > 0 && error.status < 500) {
        unanswered = undefined
        throw error
      }
      says.value = `No answer has arrived, so it is not known whether ${moneyText(amount)} was paid. The same amount pressed again is the same payment.`
    }
  }
  watch(
    () => standing.term?.code,
    () => (says.value = undefined)
  )
  return { pay, says }
}
