/**
 * News: what others may be looking at has changed. A row is written in the change's own transaction, so there is news of
 * all that was committed and of nothing else; every server reads them (`server/features/news`).
 */
import { isNull, lt, min } from 'drizzle-orm'
import type { NewsKind } from '#shared/news/responses'
import { all, untilThrough, type Reader } from './connect'
import type { Action, LoggedEvent } from './log'
import { news, webhook } from './schema/index'

/** What an action of the log is to those who look; nothing where it changes nothing that is shown. */
export const NEWS_OF: Partial<Record<Action, readonly NewsKind[]>> = {
  'program.answered': ['record'],
  'program.changed': ['record'],
  'program.published': ['term'],
  'guidance.changed': ['term'],
  'college.written': ['term'],
  'course.written': ['term'],
  'list.written': ['term'],
  'import.applied': ['term'],
  'import.undone': ['term'],
  'record.brought': ['record'],
  'route.changed': ['route'],
  'route.made': ['record'],
  'route.described': ['record'],
  'route.chosen': ['record'],
  'route.dropped': ['record'],
  'carry.changed': ['record'],
  'termNote.written': ['record'],
  'week.picked': ['record'],
  'week.made': ['own'],
  'week.changed': ['record'],
  'week.dropped': ['own'],
  'keepFree.changed': ['record'],
  'weekHabits.changed': ['own'],
  'calendarAddress.made': ['own'],
  'calendarAddress.withdrawn': ['own'],
  'signOff.given': ['record'],
  'signOff.withdrawn': ['record'],
  'intentions.handedIn': ['record'],
  'intentions.takenBack': ['record'],
  'opening.moved': ['record'],
  'run.forStudent': ['record'],
  'record.entered': ['record'],
  'opening.made': ['term'],
  'opening.dropped': ['term'],
  'term.made': ['term'],
  'term.changed': ['term'],
  'term.datesChanged': ['record'],
  'term.dropped': ['term'],
  'term.offerCopied': ['term'],
  'term.published': ['term'],
  'term.onOffer': ['record'],
  'hold.placed': ['record'],
  'hold.lifted': ['record'],
  'review.asked': ['record'],
  'review.withdrawn': ['record'],
  'review.answered': ['record'],
  'remark.made': ['record'],
  'remark.amongAdvisors': ['advisors'],
  'thread.settled': ['record'],
  'thread.settledAmongAdvisors': ['advisors'],
  'advising.handedOver': ['record', 'requests'],
  'group.offered': ['record'],
  'request.asked': ['record', 'requests'],
  'request.answered': ['record', 'requests'],
  'request.handedOn': ['record', 'requests'],
  'request.withdrawn': ['record', 'requests'],
  'suggestion.made': ['record'],
  'suggestion.sections': ['record'],
  'suggestion.added': ['record'],
  'suggestion.explained': ['record'],
  'suggestion.withdrawn': ['record'],
  'suggestion.answered': ['record'],
  'appointment.booked': ['record'],
  'appointment.invited': ['record'],
  'appointment.accepted': ['record'],
  'appointment.declined': ['record'],
  'appointment.moved': ['record'],
  'appointment.prepared': ['record'],
  'appointment.cancelled': ['record'],
  'talk.recorded': ['record'],
  'agreed.made': ['record'],
  'agreed.ticked': ['record'],
  'agreed.dropped': ['record'],
  'registration.made': ['record', 'seats'],
  'registration.exchanged': ['record', 'seats'],
  'registration.dropped': ['record', 'seats'],
  'registration.released': ['record', 'seats'],
  'registration.cancelled': ['record', 'seats'],
  'registration.partCancelled': ['record', 'seats'],
  'registration.moved': ['record'],
  'registration.elsewhere': ['record'],
  'section.seatsChanged': ['seats'],
  'section.added': ['seats', 'term'],
  'section.rulesChanged': ['seats', 'term'],
  'section.cancelled': ['seats'],
  'section.moved': ['seats', 'term'],
  'payment.answered': ['record'],
  'payment.noticed': ['record'],
  'fallbacks.changed': ['record'],
  'sheet.prepared': ['record'],
  'agreement.accepted': ['record'],
  'sheet.ran': ['record'],
  'line.joined': ['record', 'seats'],
  'line.left': ['record', 'seats'],
  'line.served': ['seats'],
  'line.cancelled': ['record', 'seats'],
  'offer.made': ['record', 'seats'],
  'offer.answered': ['record', 'seats'],
  'offer.lapsed': ['record', 'seats'],
  'exception.granted': ['record'],
  'exception.withdrawn': ['record'],
  'grades.posted': ['record'],
  'milestone.reached': ['record'],
  'milestone.takenBack': ['record'],
  'graduation.asked': ['record'],
  'graduation.withdrawn': ['record'],
  'graduation.awarded': ['record'],
  'transcript.asked': ['own'],
  'transcript.withdrawn': ['own'],
  'transcript.sent': ['own'],
  'clock.set': ['clock']
}

/** Of everybody, whoever's action it was. */
const FOR_ALL = new Set<NewsKind>(['seats', 'term', 'clock', 'requests'])

const keyOfChange = new WeakMap<Reader, string>()

/** The client's key of the change that a transaction makes; its news carries it. */
export function comesFrom(tx: Reader, key: string): void {
  keyOfChange.set(tx, key)
}

/** Writes news of what somebody does, in its transaction. */
export async function tell(
  db: Reader,
  kinds: readonly NewsKind[],
  event: Pick<LoggedEvent, 'account' | 'student' | 'after'>
): Promise<void> {
  if (!kinds.length) return
  const said = (event.after ?? {}) as { route?: number; version?: number; term?: string | null }
  const { route, version, term } = { ...said, term: said.term ?? undefined }
  await db.insert(news).values(
    kinds.map((kind) => ({
      at: new Date(),
      kind,
      studentId: FOR_ALL.has(kind) ? null : event.student,
      accountId: event.account,
      changeKey: keyOfChange.get(db) ?? null,
      about: FOR_ALL.has(kind)
        ? { ...(term === undefined ? {} : { term }) }
        : { ...(kind === 'route' ? { route: route!, version: version! } : {}) }
    }))
  )
}

/** Nobody comes back after so long and asks what they have missed: they read anew. */
const KEPT_MS = 3_600_000

/** The last one stays: it tells up to where there was news; and so does what a webhook has yet to be told. */
export async function forgetOldNews(db: Reader, now: number, mark: number): Promise<void> {
  const [behind] = await db
    .select({ at: min(webhook.heardUpTo) })
    .from(webhook)
    .where(isNull(webhook.endedAt))
  const upTo = Math.min(mark, (behind?.at ?? Infinity) + 1)
  const old = all(lt(news.at, new Date(now - KEPT_MS)), lt(news.id, upTo))
  await untilThrough(() => db.delete(news).where(old))
}
