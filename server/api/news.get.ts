import { createEventStream, getRequestHeader } from 'h3'
import { newsQuery } from '#shared/news/requests'
import { sessionEndpoint } from '#server/http/endpoint'
import { theNews } from '#server/http/thisServer'
import { readAudience, withoutRepeats } from '#server/features/news/audience'
import type { Heard } from '#server/features/news/tail'
import { sessionOf, whenEnded } from '#server/features/accounts/sessions'
import { keyOf } from '#server/http/session'
import { keepStream } from '#server/http/streams'

/** Between two looks at whether the session of a stream is still there, and who hears what. */
const LOOK_MS = 20_000

/**
 * What changes for whoever is signed in, as server-sent events (WHATWG HTML). It begins after the mark that is named,
 * or after the last one heard where a browser comes back; `anew` says that more was missed than is kept.
 */
export default sessionEndpoint(
  'GET /api/news',
  { query: newsQuery, type: 'text/event-stream' },
  async ({ event, db, who, session, query }) => {
    const stream = createEventStream(event)
    const key = keyOf(event)!
    const news = theNews()
    const close = () => void stream.close()
    let mayHear = await readAudience(db, who)
    const push = (heard: readonly Heard[]) =>
      withoutRepeats(heard.filter((one) => mayHear(one.news))).map(({ mark, news: told }) =>
        stream.push({ id: String(mark), event: 'news', data: JSON.stringify(told) })
      )
    // Whatever is committed while the past is read waits until that is told.
    let waiting: Heard[] | undefined = []
    const leave = news.listen((heard) => void (waiting ? waiting.push(...heard) : push(heard)))
    const unhear = whenEnded(session.id, close)
    const unkept = keepStream(close)
    // A session may end on another server, or by its time.
    const look = async () => {
      if (!(await sessionOf(db, key, Date.now(), false))) return stream.close()
      mayHear = await readAudience(db, who)
      await stream.push({ event: 'still', data: '' })
    }
    const looking = setInterval(() => void look().catch(close), LOOK_MS)
    stream.onClosed(async () => {
      clearInterval(looking)
      unhear()
      unkept()
      leave()
      await stream.close()
    })
    const asked = Number(getRequestHeader(event, 'last-event-id') || (query.after ?? Number.NaN))
    // Nothing is sent of an answer before its first words.
    void stream.push({ event: 'still', data: '' })
    void (async () => {
      const missed = Number.isInteger(asked) ? await news.since(asked) : []
      if (missed) push(missed)
      else void stream.push({ id: String(await news.head()), event: 'anew', data: '' })
      const told = new Set((missed ?? []).map((one) => one.id))
      push(waiting.filter((one) => !told.has(one.id)))
      waiting = undefined
    })().catch(close)
    return stream.send()
  }
)
