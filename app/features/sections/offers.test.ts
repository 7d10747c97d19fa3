import { beforeEach, expect, it } from 'vitest'
import type { TermView } from '#shared/catalog/responses'
import { persistently } from '../../ui/persistently'
import { anew, answering, settled } from '../../testing/nuxt'
import { useOffers } from './offers'

const ZONE = 'America/New_York'
const NOW = Date.parse('2027-04-09T12:00:00Z')
const AU27 = { code: 'AU27', end: '2027-12-17' } as TermView
const AU26 = { code: 'AU26', end: '2026-12-18' } as TermView
let server: ReturnType<typeof answering>
let tell: (news: { kind: string; term?: string }) => void
let missed: () => void

const what = (code: string) => ({ code, course: 'ENVI 310', number: '01' })
const seats = (code: string, taken: number) => ({
  ...{ code, capacity: 30, taken, waiting: 0, cancelled: false, reserved: [] }
})

beforeEach(() => {
  server = answering()
  anew({
    api: server.api,
    persistently,
    useClock: () => ({ now: NOW }),
    useNews: () => ({
      onNews: (hear: typeof tell) => (tell = hear),
      onMissed: (hear: typeof missed) => (missed = hear)
    })
  })
})

/** The offer of a term with two sections, read. */
async function read() {
  const offers = useOffers()
  const loading = offers.load(AU27, ZONE)
  await server.asked[0]!.answer([what('A'), what('B')])
  await server.asked[1]!.answer([seats('A', 3), seats('B', 5)])
  await loading
  return offers
}
const takenOf = (offers: ReturnType<typeof useOffers>) =>
  offers.byTerm.get('AU27')?.sections.map((one) => one.taken)

it('reads a term once for all who ask, and its seats apart from what it is', async () => {
  const offers = useOffers()
  void offers.load(AU27, ZONE)
  void offers.load(AU27, ZONE)
  expect(server.asked.map((one) => one.path)).toEqual(['/api/terms/AU27/offer', '/api/terms/AU27/seats'])
  await server.asked[1]!.answer([seats('A', 3)])
  await server.asked[0]!.answer([what('A')])
  expect(takenOf(offers)).toEqual([3])
  await offers.load(AU27, ZONE)
  expect(server.asked).toHaveLength(2)
})

it('reads only the seats anew when there is news of them, and keeps the sections whose seats are the same', async () => {
  const offers = await read()
  const before = offers.byTerm.get('AU27')!.sections
  tell({ kind: 'seats', term: 'AU27' })
  await settled()
  expect(server.asked[2]!.path).toBe('/api/terms/AU27/seats')
  await server.asked[2]!.answer([seats('A', 4), seats('B', 5)])
  expect(takenOf(offers)).toEqual([4, 5])
  expect(offers.byTerm.get('AU27')!.sections[1]).toBe(before[1])
})

it('reads all of it anew where sections or hours are others, or where something was missed', async () => {
  const offers = await read()
  tell({ kind: 'term', term: 'AU27' })
  await settled()
  expect(server.asked.slice(2).map((one) => one.path)).toEqual([
    '/api/terms/AU27/offer',
    '/api/terms/AU27/seats'
  ])
  await server.asked[2]!.answer([what('A')])
  await server.asked[3]!.answer([seats('A', 3)])
  expect(takenOf(offers)).toEqual([3])
  missed()
  await settled()
  expect(server.asked).toHaveLength(6)
})

it('does not read for terms that nobody has asked for, nor again what is over', async () => {
  const offers = await read()
  tell({ kind: 'seats', term: 'SP28' })
  tell({ kind: 'clock' })
  await settled()
  expect(server.asked).toHaveLength(2)
  void offers.load(AU26, ZONE)
  await server.asked[2]!.answer([])
  await server.asked[3]!.answer([])
  await offers.load(AU26, ZONE, true)
  expect(server.asked).toHaveLength(4)
})

it('does not let seats follow later ones', async () => {
  const offers = await read()
  tell({ kind: 'seats', term: 'AU27' })
  await settled()
  void offers.load(AU27, ZONE, true)
  await settled()
  await server.asked[3]!.answer([seats('A', 9), seats('B', 9)])
  await server.asked[2]!.answer([seats('A', 4), seats('B', 5)])
  expect(takenOf(offers)).toEqual([9, 9])
})
