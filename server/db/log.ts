/** The event log: who did what to whose record, before and after. Written in the change's own transaction, with its news. */
import { eq, inArray } from 'drizzle-orm'
import type { Instant } from '#core/time'
import type { Read } from '#server/http/access'
import { all, untilThrough, type Database, type Reader } from './connect'
import { NEWS_OF, tell } from './news'
import { eventLog, mail, mailChoice, student as studentTable } from '#server/db/schema/index'
import { topicOf } from '#shared/mail/choices'
import { isAmongAdvisors, isMailed } from '#shared/mail/mails'
import { campusNow } from '#server/gateways/clock'

export type Action =
  | Read
  | 'desk.read'
  | 'classList.read'
  | 'people.read'
  | 'opening.moved'
  | 'opening.nudged'
  | 'guidance.changed'
  | 'college.written'
  | 'course.written'
  | 'list.written'
  | 'token.made'
  | 'token.ended'
  | 'webhook.made'
  | 'webhook.ended'
  | 'holdKind.changed'
  | 'run.forStudent'
  | 'record.entered'
  | 'opening.made'
  | 'opening.dropped'
  | 'term.made'
  | 'term.changed'
  | 'term.datesChanged'
  | 'term.dropped'
  | 'term.offerCopied'
  | 'term.published'
  | 'term.onOffer'
  | 'hold.placed'
  | 'hold.lifted'
  | 'access.refused'
  | 'signIn.made'
  | 'signIn.refused'
  | 'signIn.ended'
  | 'password.changed'
  | 'account.linked'
  | 'account.invited'
  | 'account.joined'
  | 'account.ended'
  | 'program.answered'
  | 'program.changed'
  | 'program.drafted'
  | 'program.draftDropped'
  | 'program.published'
  | 'files.taken'
  | 'import.planned'
  | 'import.applied'
  | 'import.undone'
  | 'record.brought'
  | 'route.changed'
  | 'route.made'
  | 'route.described'
  | 'route.chosen'
  | 'route.dropped'
  | 'carry.changed'
  | 'termNote.written'
  | 'week.picked'
  | 'week.made'
  | 'week.changed'
  | 'week.dropped'
  | 'keepFree.changed'
  | 'weekHabits.changed'
  | 'calendarAddress.made'
  | 'calendarAddress.withdrawn'
  | 'signOff.given'
  | 'signOff.withdrawn'
  | 'intentions.handedIn'
  | 'intentions.takenBack'
  | 'review.asked'
  | 'review.withdrawn'
  | 'review.answered'
  | 'remark.made'
  | 'remark.amongAdvisors'
  | 'thread.settled'
  | 'thread.settledAmongAdvisors'
  | 'advising.handedOver'
  | 'group.offered'
  | 'request.asked'
  | 'request.answered'
  | 'request.handedOn'
  | 'request.withdrawn'
  | 'suggestion.made'
  | 'suggestion.sections'
  | 'suggestion.added'
  | 'suggestion.explained'
  | 'suggestion.withdrawn'
  | 'suggestion.answered'
  | 'hours.changed'
  | 'appointment.booked'
  | 'appointment.invited'
  | 'appointment.accepted'
  | 'appointment.declined'
  | 'appointment.moved'
  | 'appointment.prepared'
  | 'appointment.cancelled'
  | 'appointment.reminded'
  | 'kept.taken'
  | 'secondStep.turnedOn'
  | 'secondStep.turnedOff'
  | 'secondStep.spareUsed'
  | 'talk.recorded'
  | 'agreed.made'
  | 'agreed.ticked'
  | 'agreed.dropped'
  | 'registration.made'
  | 'registration.exchanged'
  | 'registration.dropped'
  | 'registration.released'
  | 'registration.cancelled'
  | 'registration.partCancelled'
  | 'registration.moved'
  | 'registration.elsewhere'
  | 'section.seatAdded'
  | 'section.seatsChanged'
  | 'section.added'
  | 'section.rulesChanged'
  | 'section.cancelled'
  | 'section.moved'
  | 'payment.answered'
  | 'payment.noticed'
  | 'fallbacks.changed'
  | 'sheet.prepared'
  | 'agreement.accepted'
  | 'sheet.ran'
  | 'rehearsal.told'
  | 'line.joined'
  | 'line.left'
  | 'line.served'
  | 'line.cancelled'
  | 'offer.made'
  | 'offer.answered'
  | 'offer.lapsed'
  | 'exception.granted'
  | 'exception.withdrawn'
  | 'mail.gathered'
  | 'mailChoices.changed'
  | 'grades.posted'
  | 'milestone.reached'
  | 'milestone.takenBack'
  | 'graduation.asked'
  | 'graduation.withdrawn'
  | 'graduation.awarded'
  | 'transcript.asked'
  | 'transcript.withdrawn'
  | 'transcript.sent'
  | 'clock.set'

export interface LoggedEvent {
  at: Instant
  /** Null for somebody who is not known. */
  account: number | null
  student: number | null
  action: Action
  /** Accounts beside the student's that are mailed. */
  also?: readonly number[]
  before?: unknown
  after?: unknown
}

/** @returns the number of the entry */
export async function logEvent(db: Reader, event: LoggedEvent): Promise<number> {
  const [made] = await db
    .insert(eventLog)
    .values({
      at: new Date(event.at),
      accountId: event.account,
      studentId: event.student,
      action: event.action,
      before: event.before ?? null,
      after: event.after ?? null
    })
    .$returningId()
  if (isMailed(event.action)) await mailTo(db, made!.id, event.student, event)
  await tell(db, NEWS_OF[event.action] ?? [], event)
  return made!.id
}

/** A mail to the student whom it is about, and to others whom it concerns, but not to who did it. */
async function mailTo(
  db: Reader,
  eventId: number,
  student: number | null,
  { account, action, also = [] }: Pick<LoggedEvent, 'account' | 'action' | 'also'>
): Promise<void> {
  const [own] =
    student === null
      ? []
      : await db.select({ id: studentTable.accountId }).from(studentTable).where(eq(studentTable.id, student))
  const first = own && !isAmongAdvisors(action) ? [own.id] : []
  const to = [...new Set([...first, ...also])].filter((one) => one !== account)
  const topic = topicOf(action)
  const chosen = new Map(
    topic && to.length
      ? (
          await db
            .select({ account: mailChoice.accountId, choice: mailChoice.choice })
            .from(mailChoice)
            .where(all(inArray(mailChoice.accountId, to), eq(mailChoice.topic, topic)))
        ).map((row) => [row.account, row.choice])
      : []
  )
  const rows = to
    .filter((one) => chosen.get(one) !== 'never')
    .map((accountId) => ({
      ...{ accountId, eventId, nextTryAt: new Date() },
      state: chosen.get(accountId) === 'daily' ? ('gathered' as const) : ('waiting' as const)
    }))
  if (rows.length) await db.insert(mail).values(rows)
}

/** The same for what changes nothing: a reading, a refusal, somebody signing in. By itself, at the campus time. */
export async function logAlone(db: Database, event: Omit<LoggedEvent, 'at'>): Promise<void> {
  const at = await campusNow(db)
  await untilThrough(async () => void (await logEvent(db, { ...event, at })))
}
