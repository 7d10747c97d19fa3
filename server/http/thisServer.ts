/** What one server process holds for all its requests: its database, the news it hears, the catalog as it was read. */
import type { CatalogContext } from '#shared/catalog/context'
import { connect, type Connection, type Database } from '#server/db/connect'
import { SignInAttempts } from '#server/features/accounts/attempts'
import { readCatalogContext } from '#server/features/catalog/context'
import { NewsTail } from '#server/features/news/tail'
import { TellingWebhooks } from '#server/jobs/tellWebhooks'
import { forgetKept } from './kept'

let connection: Connection | undefined
let attempts: SignInAttempts | undefined
let news: NewsTail | undefined
let webhooks: TellingWebhooks | undefined

function theConnection(): Connection {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set')
  return (connection ??= connect(url))
}

/** The database of this server. */
export const database = (): Database => theConnection().db

/** Wrong passwords, counted for all servers on this database. */
export const theSignInAttempts = (): SignInAttempts => (attempts ??= new SignInAttempts(theConnection()))

/** The news of all servers on this database. */
export function theNews(): NewsTail {
  if (!news) {
    news = new NewsTail(database())
    // Before any browser hears of it: what it reads then is as it was published.
    news.listen((heard) => {
      if (heard.some((one) => one.news.kind === 'term')) forgetPublished()
    })
  }
  return news
}

/** What tells other systems, of this server. */
export const theWebhooks = (): TellingWebhooks => (webhooks ??= new TellingWebhooks(database, theNews))

/** The catalog, its terms and their offers are read anew by whoever asks next. */
export function forgetPublished(): void {
  catalogContext = undefined
  forgetKept(database())
}

export async function closeDatabase(): Promise<void> {
  await connection?.close()
  connection = undefined
  attempts = undefined
  news = undefined
  webhooks = undefined
}

let catalogContext: { at: number; value: Promise<CatalogContext> } | undefined
const SHELF_MS = 30_000

/** The catalog, read at most every half minute: it changes by publication, not by use. */
export function currentCatalogContext(): Promise<CatalogContext> {
  if (!catalogContext || Date.now() - catalogContext.at > SHELF_MS) {
    const value = readCatalogContext(database())
    catalogContext = { at: Date.now(), value }
    value.catch(() => (catalogContext = undefined))
  }
  return catalogContext.value
}
