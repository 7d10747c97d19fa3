import { beforeEach, expect, it, vi } from 'vitest'
import type { News } from '#shared/news/responses'
import type { RouteView } from '#shared/route/responses'
import { persistently } from '../../ui/persistently'
import { anew, settled } from '../../testing/nuxt'
import { useFollowedRecord } from './useFollowedRecord'

const IMKE = 1
let tell: (news: News) => void
let missed: () => void
let route: RouteView
const said = vi.fn()
const read = vi.fn(async () => undefined)

const at = (version: number, id = 5) => ({ id, version }) as unknown as RouteView
const news = (over: Partial<News> = {}): News =>
  ({ kind: 'route', student: IMKE, by: 'Orla Denholt', change: null, route: 5, version: 4, ...over }) as News

beforeEach(() => {
  said.mockClear()
  read.mockReset()
  route = at(3)
  anew({
    persistently,
    useQueue: () => ({ isOwn: (key: string | null) => key === 'own' }),
    useNotice: () => ({ say: said }),
    useNews: () => ({
      onNews: (hear: typeof tell) => (tell = hear),
      onMissed: (hear: typeof missed) => (missed = hear)
    })
  })
  useFollowedRecord({
    isShown: (student) => student === IMKE,
    read,
    route: () => route,
    routes: () => [route]
  })
})

it('reads the record anew and says who changed the route', async () => {
  read.mockImplementation(async () => void (route = at(4)))
  tell(news())
  await settled()
  expect(read).toHaveBeenCalledOnce()
  expect(said).toHaveBeenCalledWith('Orla Denholt changed the route; you see it as it is now.')
})

it('does not read for what it knows, what it has made itself, or another student', async () => {
  tell(news({ version: 3 }))
  tell(news({ change: 'own' }))
  tell(news({ student: 2 as News['student'] }))
  tell(news({ student: null }))
  await settled()
  expect(read).not.toHaveBeenCalled()
})

it('says nothing of a change of a route that is not on screen, and nothing of other news', async () => {
  tell(news({ route: 6 }))
  await settled()
  tell(news({ kind: 'record' }))
  await settled()
  expect(read).toHaveBeenCalledTimes(2)
  expect(said).not.toHaveBeenCalled()
})

it('reads anew where more was missed than can be told', async () => {
  missed()
  await settled()
  expect(read).toHaveBeenCalledOnce()
  expect(said).not.toHaveBeenCalled()
})
