/**
 * Tells webhooks what has changed, soon after it was committed, and again what did not arrive. A server on which no
 * webhook stands looks once a minute whether one was made elsewhere.
 */
import type { Database } from '#server/db/connect'
import { anyWebhook, gatherDeliveries, tellDue } from '#server/features/connections/deliveries'
import type { NewsTail } from '#server/features/news/tail'
import { theWebhookSender, type WebhookSender } from '#server/gateways/webhooks'
import { joinNext } from '#shared/joinNext'
import { sayFailure } from './sayFailure'

const MINUTE_MS = 60_000
/** What changes together is told together. */
const SOON_MS = 500

export class TellingWebhooks {
  #unhear: (() => void) | undefined
  #soon: NodeJS.Timeout | undefined
  #later: NodeJS.Timeout | undefined
  #isOver = false

  constructor(
    private readonly db: () => Database,
    private readonly news: () => NewsTail,
    private readonly sender: WebhookSender = theWebhookSender
  ) {}

  /** Looks now, and from then on by itself. */
  begin(): void {
    this.#wake(0)
  }

  end(): void {
    this.#isOver = true
    this.#unhear?.()
    clearTimeout(this.#soon)
    clearTimeout(this.#later)
  }

  #wake(after: number): void {
    if (this.#isOver) return
    this.#soon ??= setTimeout(() => {
      this.#soon = undefined
      void this.#turn().catch(sayFailure)
    }, after).unref()
  }

  readonly #turn = joinNext(async () => {
    let next: number | undefined
    try {
      next = await this.#look()
    } finally {
      clearTimeout(this.#later)
      const wait = Math.min(MINUTE_MS, Math.max(SOON_MS, (next ?? Infinity) - Date.now()))
      this.#later = setTimeout(() => this.#wake(0), wait).unref()
    }
  })

  async #look(): Promise<number | undefined> {
    const db = this.db()
    if (!(await anyWebhook(db))) {
      this.#unhear?.()
      this.#unhear = undefined
      return undefined
    }
    this.#unhear ??= this.news().listen(() => this.#wake(SOON_MS))
    await gatherDeliveries(db, await this.news().head(), Date.now())
    return tellDue(db, this.sender)
  }
}
