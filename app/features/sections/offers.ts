import { phaseOf } from '#core/catalog'
import type { Section } from '#core/week'
import type { TermView } from '#shared/catalog/responses'
import type { SectionSeats, SectionWithoutSeats } from '#shared/sections/responses'
import { campusDate } from '#shared/when'

interface Offer {
  /** What they are beside their seats: the same as before while only those change. */
  what: readonly SectionWithoutSeats[]
  sections: readonly Section[]
  /** When the seats were read. */
  readAt: number
}

/** The sections of whole terms, read when first asked for, and their seats, read anew when there is news of them. */
export const useOffers = defineStore('offers', () => {
  const clock = useClock()
  const byTerm = shallowRef<ReadonlyMap<string, Offer>>(new Map())
  const asking = new Map<string, Promise<void>>()
  /** What is known of each term beside its seats. */
  const known = new Map<string, readonly SectionWithoutSeats[]>()

  /** `anew` reads a term again that is known already. @throws Failure */
  function load({ code, end }: TermView, zone: string, anew = false): Promise<void> {
    const isOver = phaseOf({ start: end, end }, campusDate(clock.now, zone)) === 'past'
    if (byTerm.value.has(code) && (!anew || isOver)) return Promise.resolve()
    let reading = asking.get(code)
    if (!reading) {
      reading = read(code).finally(() => asking.delete(code))
      asking.set(code, reading)
    }
    return reading
  }

  async function read(term: string): Promise<void> {
    const put = putting(term)
    const [sections, seats] = await Promise.all([
      known.get(term) ?? api<SectionWithoutSeats[]>(`/api/terms/${term}/offer`),
      api<SectionSeats[]>(`/api/terms/${term}/seats`)
    ])
    put(seats, sections)
  }
  async function readSeats(term: string): Promise<void> {
    const put = putting(term)
    put(await api<SectionSeats[]>(`/api/terms/${term}/seats`))
  }

  const newest = new Map<string, ReturnType<typeof newestAnswer>>()
  /** Puts the seats of a term that are about to be asked for where they belong, unless later ones stand there already. */
  function putting(
    term: string
  ): (seats: readonly SectionSeats[], read?: readonly SectionWithoutSeats[]) => void {
    const order = newest.get(term) ?? newestAnswer()
    newest.set(term, order)
    const turn = order.ask()
    return (seats, what = known.get(term)!) => {
      if (!order.take(turn)) return
      known.set(term, what)
      const before = byTerm.value.get(term)
      const sections = withSeats(what, seats, before?.what === what ? before.sections : [])
      byTerm.value = new Map(byTerm.value).set(term, { what, sections, readAt: clock.now })
    }
  }

  followChanges({
    isRead: (term) => byTerm.value.has(term) || asking.has(term),
    allRead: () => [...byTerm.value.keys(), ...asking.keys()],
    readAgain: (term, other) => {
      if (other) known.delete(term)
      return known.has(term) ? readSeats(term) : read(term)
    }
  })

  return { byTerm, load }
})

/** Reads terms again as there is news of them: their seats, or all of it where sections or hours are others. */
function followChanges(offers: {
  isRead: (term: string) => boolean
  allRead: () => readonly string[]
  readAgain: (term: string, other: boolean) => Promise<void>
}): void {
  /** Terms of which the seats have changed since they were read, and those with other sections or hours. */
  const changed = new Set<string>()
  const other = new Set<string>()
  const follow = persistently(async () => {
    for (const term of changed) {
      changed.delete(term)
      await offers.readAgain(term, other.delete(term)).catch((error: unknown) => {
        changed.add(term)
        throw error
      })
    }
  })
  useNews().onNews(({ kind, term }) => {
    if ((kind !== 'seats' && kind !== 'term') || !term) return
    // What is being read for the first time may not know of it.
    if (!offers.isRead(term)) return
    if (kind === 'term') other.add(term)
    changed.add(term)
    follow()
  })
  useNews().onMissed(() => {
    for (const term of new Set(offers.allRead())) {
      changed.add(term)
      other.add(term)
    }
    follow()
  })
}

/** Sections as their seats stand now; of those before, which differ in seats alone, the ones with the same seats are kept. */
function withSeats(
  sections: readonly SectionWithoutSeats[],
  seats: readonly SectionSeats[],
  before: readonly Section[]
): Section[] {
  const seatsOf = new Map(seats.map((one) => [one.code, one]))
  const old = new Map(before.map((one) => [one.code, one]))
  return sections.flatMap((section) => {
    const now = seatsOf.get(section.code)
    if (!now) return []
    const same = old.get(section.code)
    return [same && seatsAlike(same, now) ? same : { ...section, ...now }]
  })
}

const seatsAlike = (a: SectionSeats, b: SectionSeats) =>
  a.capacity === b.capacity &&
  a.taken === b.taken &&
  a.waiting === b.waiting &&
  a.cancelled === b.cancelled &&
  a.reserved.length === b.reserved.length &&
  a.reserved.every((one, i) => {
    const other = b.reserved[i]!
    return one.program === other.program && one.block === other.block && one.left === other.left
  })
