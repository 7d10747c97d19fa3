import { joinNext } from '#shared/joinNext'
import type { News } from '#shared/news/responses'

/**
 * Reading that begins when it is first asked for, and is done anew with all news that concern it: those too that come
 * while it is first read, since what is under way may not know of them. An answer never follows a later one.
 */
export function followed(read: () => Promise<void>, concerns: (news: News) => boolean): () => Promise<void> {
  let isAsked = false
  const now = joinNext(read)
  const again = () => isAsked && void now()
  useNews().onNews((news) => concerns(news) && again())
  useNews().onMissed(again)
  return () => {
    isAsked = true
    return now()
  }
}
