/** What the server answers about mails. */
import type { Instant } from '#core/time'

/** `gathered` waits for the mail of the day, in which it is `told`. */
export const MAIL_STATES = ['waiting', 'sent', 'failed', 'gathered', 'told'] as const

export interface MailView {
  id: number
  at: Instant
  subject: string
  text: string
  /** Null where no mail server is named: it is read here alone. */
  state: (typeof MAIL_STATES)[number] | null
}
