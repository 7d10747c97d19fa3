/** What the server answers about mails. */
import type { Instant } from '#core/time'

export const MAIL_STATES = ['waiting', 'sent', 'failed'] as const

export interface MailView {
  id: number
  at: Instant
  subject: string
  text: string
  state: (typeof MAIL_STATES)[number]
}
