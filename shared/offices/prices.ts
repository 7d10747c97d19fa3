/** What a term costs, as the registrar sets it. Amounts are whole cents. */
import type { TermPrices } from '#core/charges'
import { z } from 'zod'

const MOST = 10_000_000
const cents = z
  .number('has to be a number')
  .int('has to be whole cents')
  .min(0, 'has to be 0 or more')
  .max(MOST, 'has to be 100,000.00 or less')
const credits = z
  .number('has to be a number')
  .multipleOf(0.5, 'has to be in half credits')
  .min(0, 'has to be 0 or more')
  .max(60, 'has to be 60 or less')

const rate = z.object({
  level: z.enum(['undergraduate', 'graduate']),
  residency: z.enum(['resident', 'nonResident']),
  bands: z
    .array(z.object({ from: credits, flat: cents, perCredit: cents }))
    .min(1, 'has to have a step')
    .max(8, 'has to have 8 steps or less')
    .superRefine((bands, context) => {
      if (bands.length && bands[0]!.from !== 0)
        context.addIssue({
          code: 'custom',
          path: [0, 'from'],
          message: 'has to be 0: the first step is for any credits'
        })
      bands.forEach(({ from }, i) => {
        if (i && !(from > bands[i - 1]!.from))
          context.addIssue({
            code: 'custom',
            path: [i, 'from'],
            message: 'has to be more than that of the step before'
          })
      })
    })
})

/** What a term costs; null: nothing is charged in it. `version` is that of the term that was seen. */
export const pricesBody = z.object({
  version: z.number('has to be a number').int('has to be a whole number').min(1, 'has to be 1 or more'),
  prices: z
    .object({
      tuition: z
        .array(rate)
        .max(4, 'has to name each level and residency once')
        .refine((all) => new Set(all.map((one) => `${one.level} ${one.residency}`)).size === all.length, {
          error: 'has to name each level and residency once'
        }),
      fees: z
        .array(
          z.object({
            title: z.string().trim().min(1, 'is needed').max(60, 'has to be 60 characters or less'),
            amount: cents
          })
        )
        .max(20, 'have to be 20 or less')
        .refine((all) => new Set(all.map((one) => one.title)).size === all.length, {
          error: 'have to have titles of their own'
        }),
      releasesUnpaid: z.boolean('has to be true or false')
    })
    .nullable()
})
export type PricesSaid = z.output<typeof pricesBody>

/** Prices without what is given back, which stands with the dates of the term. */
export type SaidPrices = Omit<TermPrices, 'refunds'>
