/** Fills a route away from the page's main thread. Cancelled by ending the worker. */
import { fillMending, type FillAnswer, type FillProblem } from '#core/fill'

export type FillNews =
  { kind: 'found'; finish: number } | { kind: 'steps'; steps: number } | { kind: 'done'; answer: FillAnswer }

self.onmessage = ({ data }: MessageEvent<FillProblem>) => {
  const tell = (news: FillNews) => self.postMessage(news)
  const answer = fillMending(data, {
    found: ({ finish }) => tell({ kind: 'found', finish }),
    stopped: (steps) => {
      tell({ kind: 'steps', steps })
      return false
    }
  })
  tell({ kind: 'done', answer })
}
