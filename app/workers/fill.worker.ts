/** Fills a route away from the page's main thread. Cancelled by ending the worker. */
import { fillRoute, type FillCall, type Filled } from '#wire/filling'

export type FillNews =
  | { kind: 'found'; finish: string | undefined }
  | { kind: 'steps'; steps: number }
  | { kind: 'done'; proposal: Filled | undefined; ended: string }

self.onmessage = ({ data }: MessageEvent<FillCall>) => {
  const tell = (news: FillNews) => self.postMessage(news)
  const { proposal, ended } = fillRoute(data, {
    found: (term) => tell({ kind: 'found', finish: term?.name }),
    stopped: (steps) => {
      tell({ kind: 'steps', steps })
      return false
    }
  })
  tell({ kind: 'done', proposal, ended })
}
