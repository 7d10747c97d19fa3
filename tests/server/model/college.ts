/**
 * Registration as the documentation tells it, in memory and as plainly as can be: one course of 3 credits in two sections,
 * each with a line of its own. It shares nothing with the server but the words.
 */
export type SectionName = 'A' | 'B'

const HOUR = 3_600_000
const DAY = 24 * HOUR

/** Facts of the term that are asked, as the demo has them. */
export interface ModelTerm {
  /** All instants in milliseconds; days are campus days. */
  opens: number
  linesClose: number
  addEnds: number
  dropFreeEnds: number
  dropEnds: number
  fullRefundEnds: number
  halfRefundEnds: number
  /** Day numbers. */
  paymentDue: number
  firstDay: number
  dayOf: (at: number) => number
  places: number
}

export interface ModelPerson {
  seat: SectionName | null
  /** The seat that is offered, and until when. */
  offer: { section: SectionName; until: number } | null
  hold: boolean
  /** May be let into A although it is full. */
  permitted: boolean
  /** In cents. */
  charged: number
  paid: number
  notices: number[]
}

const TUITION = 3 * 36_500
const FEES = 26_500 + 3_000

export type ModelOutcome = 'registered' | 'exchanged' | 'inLine' | 'refused' | 'dropped' | 'left' | 'declined'

export class ModelCollege {
  now: number
  readonly capacity: Record<SectionName, number>
  readonly people: ModelPerson[]
  /** Who stands in the lines, the first first; those with an offer too. */
  readonly lines: Record<SectionName, number[]> = { A: [], B: [] }

  constructor(
    private readonly term: ModelTerm,
    people: number,
    capacity: Record<SectionName, number>
  ) {
    this.now = term.opens
    this.capacity = { ...capacity }
    this.people = Array.from({ length: people }, () => ({
      seat: null,
      offer: null,
      hold: false,
      permitted: false,
      charged: 0,
      paid: 0,
      notices: []
    }))
  }

  taken(section: SectionName): number {
    return this.people.filter((person) => person.seat === section).length
  }

  /** Seats that offers hold. */
  offered(section: SectionName): number {
    return this.people.filter((person) => person.offer?.section === section).length
  }

  owed(who: number): number {
    return this.people[who]!.charged - this.people[who]!.paid
  }

  private free(section: SectionName): number {
    return this.capacity[section] - this.taken(section) - this.offered(section)
  }

  private charge(who: number, before: SectionName | null) {
    const person = this.people[who]!
    if (before === null && person.seat !== null) person.charged += TUITION + FEES
    if (before !== null && person.seat === null) {
      const { fullRefundEnds, halfRefundEnds } = this.term
      const part = this.now < fullRefundEnds ? 1 : this.now < halfRefundEnds ? 0.5 : 0
      person.charged -= (TUITION + FEES) * part
    }
  }

  private sit(who: number, section: SectionName | null) {
    const person = this.people[who]!
    const before = person.seat
    person.seat = section
    this.charge(who, before)
    if (section !== null) this.goFromLine(who, section)
  }

  private goFromLine(who: number, section: SectionName) {
    this.lines[section] = this.lines[section].filter((one) => one !== who)
    if (this.people[who]!.offer?.section === section) this.people[who]!.offer = null
  }

  private stands(who: number): boolean {
    return this.lines.A.includes(who) || this.lines.B.includes(who)
  }

  /** Registers or exchanges; with `waits`, a place in line is taken where only the seats are in the way, one for the course. */
  register(who: number, section: SectionName, waits: boolean): ModelOutcome {
    const person = this.people[who]!
    if (this.now >= this.term.addEnds || person.hold || person.seat === section) return 'refused'
    const outcome = person.seat === null ? 'registered' : 'exchanged'
    const isKept = person.offer?.section === section
    if (isKept || this.free(section) > 0) {
      this.sit(who, section)
      return outcome
    }
    if (section === 'A' && person.permitted) {
      this.capacity.A++
      this.sit(who, section)
      return outcome
    }
    const mayWait = waits && this.now < this.term.linesClose && !this.stands(who)
    if (!mayWait || this.lines[section].length >= this.term.places) return 'refused'
    this.lines[section].push(who)
    return 'inLine'
  }

  drop(who: number): ModelOutcome {
    const person = this.people[who]!
    if (person.seat === null || this.now >= this.term.dropEnds) return 'refused'
    this.sit(who, null)
    return 'dropped'
  }

  leave(who: number): ModelOutcome {
    if (!this.stands(who)) return 'refused'
    this.goFromLine(who, 'A')
    this.goFromLine(who, 'B')
    return 'left'
  }

  answer(who: number, given: 'accept' | 'decline'): ModelOutcome {
    const person = this.people[who]!
    const { section } = person.offer!
    if (given === 'decline') {
      this.goFromLine(who, section)
      return 'declined'
    }
    if (this.now >= this.term.addEnds || person.hold) return 'refused'
    const outcome = person.seat === null ? 'registered' : 'exchanged'
    this.sit(who, section)
    return outcome
  }

  pay(who: number, amount: number): boolean {
    if (amount > this.owed(who)) return false
    this.people[who]!.paid += amount
    return true
  }

  /** What time and freed seats make due. */
  serve() {
    this.followUnpaid()
    for (const [who, { offer }] of this.people.entries())
      if (offer !== null && offer.until <= this.now) this.goFromLine(who, offer.section)
    if (this.now >= this.term.linesClose) return
    const ahead = this.term.firstDay - this.term.dayOf(this.now)
    const until = Math.min(this.term.linesClose, this.now + (ahead <= 7 ? 12 : 48) * HOUR)
    for (const section of ['A', 'B'] as const)
      for (const who of this.lines[section]) {
        const person = this.people[who]!
        if (this.free(section) > 0 && person.offer === null && !person.hold) person.offer = { section, until }
      }
  }

  private followUnpaid() {
    const { addEnds, paymentDue, dayOf } = this.term
    if (this.now >= addEnds) return
    const today = dayOf(this.now)
    for (const [who, person] of this.people.entries()) {
      if (person.seat === null) continue
      if (this.owed(who) <= 0) {
        person.notices = []
        continue
      }
      const [first, last] = person.notices
      if (first === undefined) {
        if (today >= paymentDue - 14) person.notices.push(today)
      } else if (last === undefined) {
        if (today >= paymentDue - 3 && today > first) person.notices.push(today)
      } else if (today > paymentDue && today >= last + 3) {
        this.sit(who, null)
        person.notices = []
      }
    }
  }
}

export const modelDay = (at: number, offset: number) => Math.floor((at + offset) / DAY)
