/** What somebody wants to be mailed, and when. What decides over seats (money, holds, openings and dates too) is mailed at once, always: it runs out. So is what an office does in one’s place or enters on the record: nobody else would notice. */
import { z } from 'zod'

export const MAIL_TOPICS = ['advising', 'appointments'] as const
export type MailTopic = (typeof MAIL_TOPICS)[number]
export const MAIL_CHOICES = ['atOnce', 'daily', 'never'] as const
export type MailChoice = (typeof MAIL_CHOICES)[number]
export type MailChoices = Record<MailTopic, MailChoice>

export const USUAL_CHOICES: MailChoices = { advising: 'atOnce', appointments: 'atOnce' }

const BEGINS: Record<MailTopic, readonly string[]> = {
  advising: [
    'signOff.',
    'review.',
    'remark.',
    'suggestion.',
    'group.',
    'request.',
    'advising.',
    'talk.',
    'program.',
    'milestone.',
    'graduation.'
  ],
  appointments: ['appointment.']
}
/** What an entry of the log is about; undefined for what is mailed at once whatever is chosen. */
export const topicOf = (action: string): MailTopic | undefined =>
  MAIL_TOPICS.find((topic) => BEGINS[topic].some((begin) => action.startsWith(begin)))

const choice = z.enum(MAIL_CHOICES, 'has to be atOnce, daily or never')
export const mailChoicesBody = z.object({ advising: choice, appointments: choice })
