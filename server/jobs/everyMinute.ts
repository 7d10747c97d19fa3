/**
 * What a server does without being asked, once when it starts and every minute from then on. Servers on one database do
 * it side by side: each piece of work is done once, or is the same done twice.
 */
import type { Database } from '#server/db/connect'
import { forgetMadeChanges } from '#server/db/madeChange'
import { ReadingAhead } from '#server/features/advising/readAhead'
import { remindOfAppointments } from '#server/features/appointments/reminders'
import { forgetDeliveries } from '#server/features/connections/deliveries'
import { askAgain } from '#server/features/charges/payments'
import { followUnpaid } from '#server/features/charges/unpaid'
import { nextArmed, runArmed } from '#server/features/registration/armed'
import { rehearseNightly } from '#server/features/registration/rehearsals'
import { emptyCancelled } from '#server/features/registration/sectionChanges'
import { sendTranscripts } from '#server/features/record/transcripts'
import { endCutOffRuns } from '#server/features/registration/run'
import { serveAllLines } from '#server/features/registration/serving'
import { gatherMails } from '#server/features/mail/digests'
import { sendMails } from '#server/features/mail/mails'
import { thePost } from '#server/gateways/post'
import { campusNow } from '#server/gateways/clock'
import { timed } from '#server/gateways/metrics'
import { theTranscriptSender } from '#server/gateways/transcripts'
import { theCashier } from '#server/gateways/cashier'
import type { CatalogContext } from '#shared/catalog/context'
import { sayFailure } from './sayFailure'

const MINUTE_MS = 60_000

export async function everyMinute(db: Database, catalogContext: CatalogContext): Promise<void> {
  await timed('cutOffRuns', () => endCutOffRuns(db))
  await timed('payments', () => askAgain(db, theCashier()))
  await dueByNow(db, catalogContext)
  await timed('mails', () => sendMails(db, catalogContext, thePost()))
  await timed('madeChanges', () => forgetMadeChanges(db, Date.now()))
  await timed('oldDeliveries', () => forgetDeliveries(db, Date.now()))
}

/** What the campus time makes due: sheets that run by themselves, what is rehearsed by night, seats that were not paid for, offers that are over, the lines, reminders, transcripts that wait for grades. */
async function dueByNow(db: Database, catalogContext: CatalogContext): Promise<void> {
  await timed('armedSheets', () => runArmed(db, catalogContext))
  await timed('rehearsals', () => rehearseNightly(db, catalogContext))
  await timed('cancelledSections', () => emptyCancelled(db, catalogContext))
  await timed('unpaidSeats', () => followUnpaid(db, catalogContext.zone))
  await timed('lines', () => serveAllLines(db, catalogContext))
  await timed('reminders', () => remindOfAppointments(db))
  await timed('transcripts', async () =>
    sendTranscripts(db, catalogContext, theTranscriptSender(), await campusNow(db))
  )
  await timed('digests', () => gatherMails(db, catalogContext.zone))
}

/** The same at once, as when the campus clock was set. What fails here is said and left for the next turn. */
export async function doWhatIsDue(db: Database, catalogContext: CatalogContext): Promise<void> {
  await dueByNow(db, catalogContext).catch(sayFailure)
}

/** A sheet that runs by itself does so at its opening, and not a minute later. */
async function untilNextArmed(db: Database): Promise<number> {
  const next = await nextArmed(db)
  return next === undefined ? Infinity : Math.max(0, next - (await campusNow(db)))
}

/** Begins the work, until the returned function is called. What fails is said, and tried again with the next turn. */
export function begin(db: () => Database, catalogContext: () => Promise<CatalogContext>): () => void {
  let opening: NodeJS.Timeout | undefined
  const run = async () => runArmed(db(), await catalogContext())
  const work = async () => {
    await everyMinute(db(), await catalogContext())
    const next = await untilNextArmed(db())
    clearTimeout(opening)
    if (next < MINUTE_MS) opening = setTimeout(() => void run().catch(sayFailure), next).unref()
  }
  const ahead = new ReadingAhead()
  const turn = () =>
    void work()
      .then(async () => ahead.turn(db(), await catalogContext()))
      .catch(sayFailure)
  turn()
  const timer = setInterval(turn, MINUTE_MS).unref()
  return () => {
    clearInterval(timer)
    clearTimeout(opening)
  }
}
