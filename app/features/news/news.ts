import { createEventHook } from '@vueuse/core'
import type { News } from '#shared/news/responses'

/** How long the stream may say nothing, of its own heartbeat either, until it is taken for dead. */
const SILENT_MS = 50_000
const AGAIN_MS = 2000

/** What one tab of a browser says to the others. */
type Said = { mark: number; news?: News }

/**
 * News of what others change. One tab of the browser holds the stream and tells the others, since a browser keeps few
 * connections to one server; where it closes, the next one goes on after the last that was heard.
 */
export const useNews = defineStore('news', () => {
  const told = createEventHook<News>()
  /** More was missed than can be told: what is shown has to be read anew. */
  const missed = createEventHook<undefined>()
  /** The session has ended: nothing more is heard. */
  const ended = createEventHook<undefined>()
  /** Whether the stream is there, here or in another tab. */
  const live = ref(false)

  let mark = 0
  let stop: (() => void) | undefined

  /** Hears what changes for somebody from a mark on. Asked again for the same person it goes on as it is. */
  let listening: number | undefined
  function listen(account: number, after: number): void {
    if (listening === account) return
    leave()
    listening = account
    mark = after
    const name = `ridgeway-news-${account}`
    const others = new BroadcastChannel(name)
    others.onmessage = ({ data }: MessageEvent<Said>) => hear(data)
    const leaving = new AbortController()
    const hold = async () => {
      const how = await holdStream(
        {
          mark: () => mark,
          say: (said) => (hear(said), others.postMessage(said)),
          isLive: (is) => (live.value = is),
          missed: () => void missed.trigger(undefined)
        },
        leaving.signal
      )
      if (how === 'ended') void ended.trigger(undefined)
    }
    // Where pages are not served safely a browser has no locks: every tab holds a stream of its own.
    if ('locks' in navigator)
      void navigator.locks.request(name, { signal: leaving.signal }, hold).catch(() => undefined)
    else void hold()
    stop = () => {
      leaving.abort()
      others.close()
    }
  }

  function leave(): void {
    stop?.()
    stop = undefined
    listening = undefined
    live.value = false
  }

  function hear({ mark: heard, news }: Said): void {
    live.value = true
    mark = Math.max(mark, heard)
    if (news) void told.trigger(news)
  }

  return { live, listen, leave, onNews: told.on, onMissed: missed.on, onEnded: ended.on }
})

/** What a stream is asked and tells. */
interface StreamHeard {
  /** The last that was heard, wherever. */
  mark: () => number
  say: (said: Said) => void
  /** Whether it is there. */
  isLive: (live: boolean) => void
  /** More was missed than can be told. */
  missed: () => void
}

/** Keeps a stream open until it is left, or the session has ended. */
function holdStream(of: StreamHeard, leaving: AbortSignal): Promise<'left' | 'ended'> {
  return new Promise((resolve) => {
    let source: EventSource | undefined
    let silence: ReturnType<typeof setTimeout> | undefined
    const close = () => {
      clearTimeout(silence)
      source?.close()
    }
    const again = () => {
      close()
      of.isLive(false)
      if (!leaving.aborted) silence = setTimeout(open, AGAIN_MS)
    }
    const heard = () => {
      clearTimeout(silence)
      silence = setTimeout(again, SILENT_MS)
    }
    function open(): void {
      source = new EventSource(`/api/news?after=${of.mark()}`)
      source.addEventListener('still', () => {
        heard()
        of.say({ mark: of.mark() })
      })
      source.addEventListener('news', ({ data, lastEventId }: MessageEvent<string>) => {
        heard()
        of.say({ mark: Number(lastEventId), news: JSON.parse(data) as News })
      })
      source.addEventListener('anew', ({ lastEventId }: MessageEvent) => {
        heard()
        of.say({ mark: Number(lastEventId) })
        of.missed()
      })
      source.addEventListener('error', () => {
        of.isLive(false)
        // A stream that is refused is not tried again by the browser.
        if (source?.readyState !== EventSource.CLOSED) return
        again()
        void useWho()
          .stillThere()
          .then((there) => {
            if (there) return
            close()
            resolve('ended')
          })
          .catch(() => undefined)
      })
    }
    leaving.addEventListener('abort', () => {
      close()
      resolve('left')
    })
    open()
  })
}
