/**
 * Reads the news as they are committed, once for all who listen on this server.
 *
 * Rows are numbered when they are written and seen when they are committed, so a lower number may be seen after a
 * higher one. The _mark_ is the number up to which nothing more can come: what is missing below a number that was seen
 * holds it back until it is seen too, or until its transaction can no longer be under way. Who has heard everything up
 * to a mark misses nothing by asking for what comes after it; some may be heard twice.
 */
import { asc, eq, gt, inArray, max, min, or, type SQL } from 'drizzle-orm'
import { maybeTermCode, studentId } from '#core/ids'
import type { News } from '#shared/news/responses'
import { all, type Database } from '#server/db/connect'
import { joinNext } from '#shared/joinNext'
import { forgetOldNews } from '#server/db/news'
import { account, news } from '#server/db/schema/index'

/** News with the mark up to which everything has been heard once they are. */
export interface Heard {
  id: number
  mark: number
  news: News
}

/** Between two looks while somebody listens. */
const LOOK_MS = 200
/** Longer than any transaction waits for its locks. */
const UNDER_WAY_MS = 30_000
/** Numbers below the first mark that may still be under way when a server starts. */
const LOOK_BACK = 200
const ROWS_MOST = 1000
const MISSING_MOST = 500
const FORGET_MS = 60_000

export class NewsTail {
  readonly #listeners = new Set<(heard: readonly Heard[]) => void>()
  #mark: number | undefined
  /** Numbers above the mark that were seen, in order, with the time at which each was written. */
  #seen = new Map<number, number>()
  #timer: NodeJS.Timeout | undefined
  #forgotAt = 0

  constructor(
    private readonly db: Database,
    private readonly now: () => number = Date.now
  ) {}

  /** Hears all that is committed from now on, until the returned function is called. */
  listen(listener: (heard: readonly Heard[]) => void): () => void {
    this.#listeners.add(listener)
    this.#timer ??= setInterval(() => void this.look().catch(() => undefined), LOOK_MS).unref()
    return () => {
      this.#listeners.delete(listener)
      if (this.#listeners.size) return
      clearInterval(this.#timer)
      this.#timer = undefined
    }
  }

  /** The mark as of now: what is committed later comes after it. */
  async head(): Promise<number> {
    await this.look()
    return this.#mark!
  }

  /** What has been committed since a mark; undefined where so much is not kept. */
  async since(mark: number): Promise<Heard[] | undefined> {
    const head = await this.head()
    const [first] = await this.db.select({ id: min(news.id) }).from(news)
    const rows = await this.#read(gt(news.id, mark))
    if ((mark < head && (first?.id ?? 0) > mark + 1) || rows.length === ROWS_MOST) return undefined
    return rows.map(({ id, news: told }) => ({ id, news: told, mark: Math.min(id, head) }))
  }

  /** Looks once; several who ask at the same time share a look that begins after they asked. */
  readonly look = joinNext(() => this.#lookNow())

  async #lookNow(): Promise<void> {
    const now = this.now()
    if (this.#mark === undefined) {
      const [last] = await this.db.select({ id: max(news.id) }).from(news)
      this.#mark = Math.max(0, (last?.id ?? 0) - LOOK_BACK)
      this.#see(await this.#read(gt(news.id, this.#mark)), now)
      return
    }
    const fresh = await this.#read(this.#stillToCome())
    this.#see(fresh, now)
    if (now - this.#forgotAt > FORGET_MS) {
      this.#forgotAt = now
      await forgetOldNews(this.db, now, this.#mark)
    }
    if (!fresh.length) return
    const heard = fresh.map(({ id, news: told }) => ({ id, news: told, mark: Math.min(id, this.#mark!) }))
    for (const listener of this.#listeners) listener(heard)
  }

  /** What is beyond everything that was seen, and what is missing below it. */
  #stillToCome(): SQL {
    const highest = [...this.#seen.keys()].at(-1) ?? this.#mark!
    const missing: number[] = []
    for (let id = highest; id > this.#mark! && missing.length < MISSING_MOST; id--)
      if (!this.#seen.has(id)) missing.push(id)
    const beyond = gt(news.id, highest)
    return missing.length ? or(beyond, inArray(news.id, missing))! : beyond
  }

  /**
   * Moves the mark over all that was seen. A number that is missing was given out before the next one was written; once
   * that is long ago it can no longer come.
   */
  #see(rows: readonly { id: number; at: number }[], now: number): void {
    for (const { id, at } of rows) this.#seen.set(id, at)
    this.#seen = new Map([...this.#seen].sort(([a], [b]) => a - b))
    for (const [id, at] of this.#seen) {
      if (id > this.#mark! + 1 && now - at < UNDER_WAY_MS) return
      this.#mark = id
      this.#seen.delete(id)
    }
  }

  async #read(which: SQL): Promise<{ id: number; at: number; news: News }[]> {
    const rows = await this.db
      .select({ row: news, by: account.name })
      .from(news)
      .leftJoin(account, eq(account.id, news.accountId))
      .where(all(which))
      .orderBy(asc(news.id))
      .limit(ROWS_MOST)
    return rows.map(({ row: { id, at, kind, studentId: student, changeKey, about }, by }) => {
      const { term, ...rest } = about
      // What one row says wrong would keep everybody from everything.
      const code = maybeTermCode(String(term))
      const told: News = {
        kind,
        student: student === null ? null : studentId(student),
        by,
        change: changeKey,
        ...rest,
        ...(code === undefined ? {} : { term: code })
      }
      return { id, at: at.getTime(), news: told }
    })
  }
}
