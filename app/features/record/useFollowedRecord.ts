import type { News } from '#shared/news/responses'
import type { RouteView } from '#shared/route/responses'

interface Followed {
  isShown: (student: number) => boolean
  read: () => Promise<void>
  /** The route on screen, and all of the record. */
  route: () => RouteView | undefined
  routes: () => readonly RouteView[]
}

/** Reads a record anew at news of it, and says who changed the route on screen. */
export function useFollowedRecord({ isShown, read, route: onScreen, routes }: Followed) {
  const queue = useQueue()
  const notice = useNotice()
  /** News of the route that is still to be told. */
  let heard: News | undefined
  const follow = persistently(async () => {
    const before = onScreen()
    await read()
    const news = heard
    heard = undefined
    const now = onScreen()
    if (news && before && now && before.id === now.id && before.version !== now.version)
      notice.say(`${news.by} changed the route; you see it as it is now.`)
  })
  useNews().onNews(hear)
  useNews().onMissed(follow)
  function hear(news: News): void {
    // What is being read for the first time may not know of it.
    if (news.student === null || !isShown(news.student) || queue.isOwn(news.change)) return
    const { route, version } = news
    const known = routes().find((one) => one.id === route)
    if (news.kind === 'route' && known && known.version >= version!) return
    if (news.kind === 'route') heard = news
    follow()
  }
}
