/** Fills a route away from the page's main thread. Cancelled by ending the worker. */
import loadHighs from 'highs'
import solverFile from 'highs/runtime?url'
import { fillRoute, type FillCall, type Filled } from '#shared/route/filling'
import { solverOf } from '#shared/route/solver'

export type FillNews =
  | { kind: 'found'; finish: string }
  | { kind: 'tried'; models: number }
  | { kind: 'done'; proposal: Filled | undefined; ended: string }

const tell = (news: FillNews) => self.postMessage(news)
self.onmessage = async ({ data }: MessageEvent<FillCall>) => {
  const highs = await loadHighs({ locateFile: () => solverFile })
  const { proposal, ended } = fillRoute(data, {
    solve: solverOf(highs),
    told: (models, finish) => {
      tell(finish ? { kind: 'found', finish: finish.name } : { kind: 'tried', models })
    }
  })
  tell({ kind: 'done', proposal, ended })
}
