/** What is sent to pay. */
import { centsOf } from '#core/charges'
import { z } from 'zod'
import { termCode } from '#shared/requests'

/** More than any term costs. */
const MOST_CENTS = 100_000_00

export const paymentBody = z.object({
  term: termCode,
  amount: z
    .number('has to be an amount in cents')
    .int('has to be a whole number of cents')
    .min(1, 'has to be 1 cent or more')
    .max(MOST_CENTS, `has to be ${MOST_CENTS} cents or less`)
})

/** What is typed to pay a part: less than the most that can be sent. */
export const amountForm = z.object({
  amount: z
    .string()
    .trim()
    .regex(/^(?=.*[1-9])\d{1,5}(\.\d{1,2})?$/, 'has to be an amount such as 500.00')
})

/** Cents of an amount as it was typed. */
export const centsTyped = (amount: string): number => centsOf(Number(amount))
