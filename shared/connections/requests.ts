/** What is sent to let other systems in, and to have them told. */
import { z } from 'zod'
import { idInAddress } from '#shared/requests'
import { EVENT_TYPES } from './events'
import { SCOPES } from './scopes'

export const tokenParams = z.object({ token: idInAddress })
export const webhookParams = z.object({ webhook: idInAddress })
export const deliveryParams = z.object({ delivery: idInAddress })

const name = z.string('is needed').trim().min(1, 'is needed').max(80, 'has to be 80 characters or less')
/** Some of what there is, each once, in the order in which there is. */
const someOf = <Name extends string>(names: readonly Name[], what: string) =>
  z
    .array(z.enum(names, `has to be one of ${what}`), 'is needed')
    .min(1, `has to name at least one of ${what}`)
    .max(names.length, `has to name each of ${what} once`)
    .transform((chosen) => names.filter((one) => chosen.includes(one)))

/** Days for which a token may hold. */
export const TOKEN_DAYS = [30, 180, 365] as const

export const tokenBody = z.object({
  name,
  scopes: someOf(SCOPES, 'the scopes'),
  days: z.literal(TOKEN_DAYS, 'has to be 30, 180 or 365')
})
export type TokenSaid = z.output<typeof tokenBody>

export const webhookBody = z.object({
  name,
  address: z
    .url({ protocol: /^https?$/, error: 'has to be an address that begins with https://' })
    .max(300, 'has to be 300 characters or less')
    .refine((text) => {
      const address = URL.canParse(text) ? new URL(text) : undefined
      return !address?.username && !address?.password && !address?.hash
    }, 'may hold no name or password, and no part after #'),
  types: someOf(EVENT_TYPES, 'the kinds of events')
})
export type WebhookSaid = z.output<typeof webhookBody>
