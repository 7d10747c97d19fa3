/** Finds weeks away from the page's main thread. Cancelled by ending the worker. */
import type { Wish } from '#core/find'
import { WeekFinder, type FindCall, type WeeksCounted, type WeeksFound } from '#shared/week/finding'

/** Asks anew, or the same with other wishes. */
export type WeeksAsked = { call: FindCall } | { wishes: readonly Wish[] }
export type WeeksNews =
  | { kind: 'so far'; found: WeeksFound }
  | { kind: 'best'; found: WeeksFound; ms: number }
  | { kind: 'counted'; counted: WeeksCounted }

const TELL_MS = 200
let finder: WeekFinder | undefined

self.onmessage = ({ data }: MessageEvent<WeeksAsked>) => {
  const tell = (news: WeeksNews) => self.postMessage(news)
  const began = performance.now()
  if ('call' in data) finder = new WeekFinder(data.call)
  else finder?.wish(data.wishes)
  if (!finder) return
  let told = began
  const found = finder.best((soFar) => {
    if (performance.now() - told > TELL_MS) {
      told = performance.now()
      tell({ kind: 'so far', found: soFar })
    }
    return false
  })
  tell({ kind: 'best', found, ms: performance.now() - began })
  if ('call' in data) tell({ kind: 'counted', counted: finder.count() })
}
