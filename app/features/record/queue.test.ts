import { beforeEach, expect, it, vi } from 'vitest'
import { reactive } from 'vue'
import { studentId } from '#core/ids'
import { titleOf } from '#shared/record/changeTitles'
import type { Change } from '#shared/record/changes'
import type { PendingChange } from '#shared/record/changeQueue'
import { anew, answering, settled } from '../../testing/nuxt'
import { useQueue } from './queue'

const IMKE = studentId(1)
const BRAM = studentId(4)
const star = (course: string): Change =>
  ({ kind: 'mark', course, said: { starred: true }, at: 0 }) as unknown as Change
let server: ReturnType<typeof answering>
let who: { who: { id: number } | undefined }
let news: { live: boolean }
let kept: Map<string, PendingChange>
/** What was left over of an account, taken up when it signs in. */
let left: PendingChange[]

beforeEach(() => {
  server = answering()
  who = reactive({ who: { id: 7 } })
  news = reactive({ live: true })
  kept = new Map()
  left = []
  let keys = 0
  anew({
    api: server.api,
    useWho: () => who,
    useNews: () => news,
    newKey: () => `key-${++keys}`,
    keepChange: async (one: PendingChange) => void kept.set(one.key, one),
    dropChange: async (one: PendingChange) => void kept.delete(one.key),
    takeOverKept: async (account: number, take: (left: PendingChange[]) => void) => {
      const own = left.filter((one) => one.account === account)
      if (own.length) take(own)
    }
  })
})

const add = (queue: ReturnType<typeof useQueue>, course: string, student = IMKE) =>
  queue.add({ student, name: 'Imke Varga', seen: 0 }, star(course))

it('sends the changes of a record one after another, and those of two records side by side', async () => {
  const queue = useQueue()
  void add(queue, 'ENVI 310')
  void add(queue, 'SOIL 220')
  void add(queue, 'MATH 231', BRAM)
  await settled()
  expect(server.asked.map((one) => one.path)).toEqual([
    '/api/students/1/courses/ENVI-310',
    '/api/students/4/courses/MATH-231'
  ])
  await server.asked[0]!.answer(null)
  expect(server.asked[2]!.path).toBe('/api/students/1/courses/SOIL-220')
  expect(queue.byStudent.get(IMKE)?.pending).toHaveLength(1)
})

it('keeps a change until it is answered, and tells what came of it', async () => {
  const queue = useQueue()
  const made = vi.fn()
  queue.onMade(made)
  const outcome = add(queue, 'ENVI 310')
  await settled()
  expect([...kept.keys()]).toEqual(['key-1'])
  await server.asked[0]!.answer({ version: 3 })
  expect((await outcome).is).toBe('made')
  expect(kept.size).toBe(0)
  expect(made).toHaveBeenCalledWith(expect.objectContaining({ answer: { version: 3 } }))
  expect(queue.isOwn('key-1')).toBe(true)
  expect(queue.isOwn('of somebody else')).toBe(false)
})

it('takes a refused change back and says why', async () => {
  const queue = useQueue()
  const refused = vi.fn()
  queue.onRefused(
    async (one) =>
      void refused(
        titleOf(one.pending.change, (term) => term),
        one.problem.message
      )
  )
  const outcome = add(queue, 'ENVI 310')
  await settled()
  await server.asked[0]!.refuse(422, 'There is no such course.')
  expect((await outcome).is).toBe('refused')
  expect(refused.mock.calls[0]![1]).toBe('There is no such course.')
  expect([queue.byStudent.get(IMKE)?.pending, kept.size]).toEqual([[], 0])
})

it('sends the same again, under the same key, once the server is there again', async () => {
  const queue = useQueue()
  const outcome = add(queue, 'ENVI 310')
  await settled()
  await server.asked[0]!.refuse(0)
  expect((await outcome).is).toBe('waits')
  expect(queue.byStudent.get(IMKE)?.state).toBe('unreachable')
  news.live = false
  await settled()
  news.live = true
  await settled()
  expect(server.asked.map((one) => one.options.key)).toEqual(['key-1', 'key-1'])
  await server.asked[1]!.answer(null)
  expect(queue.byStudent.get(IMKE)?.pending).toEqual([])
})

it('never sends for whoever is signed in what somebody else has made', async () => {
  const queue = useQueue()
  void add(queue, 'ENVI 310')
  void add(queue, 'SOIL 220')
  await settled()
  who.who = { id: 8 }
  await settled()
  await server.asked[0]!.answer(null)
  await settled()
  expect(server.asked).toHaveLength(1)
  expect([...kept.values()].map((one) => one.account)).toEqual([7])
})

it('takes up what an account has left over when it signs in', async () => {
  who.who = undefined
  useQueue()
  left = [
    {
      ...{ key: 'left-1', account: 9, student: BRAM, studentName: 'Bram Ostrander' },
      ...{ change: star('GEOS 210'), seen: 0, madeAt: 1 }
    }
  ]
  who.who = { id: 9 }
  await settled()
  expect(server.asked.map((one) => [one.path, one.options.key])).toEqual([
    ['/api/students/4/courses/GEOS-210', 'left-1']
  ])
})
