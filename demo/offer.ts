// oxlint-disable max-lines -- sections written by hand
/** Sections of the published terms: some written by hand, the rest from the seeded generator. */
import { runsIn, usuallyRuns, type Course } from '#core/catalog'
import { parseDayLetters, sectionCodeAt } from '#core/formats'
import { minutes, type Weekday } from '#core/time'
import { courses } from './catalog'
import { PAST_TERMS, rooms, sessionsOf, SUBJECTS, terms, type DemoTerm } from './college'
import type { Random } from './random'

export interface DemoMeeting {
  days: string
  start: number
  end: number
  room: number | null
  /** The only date of a meeting that takes place once. */
  on?: string
}

export interface DemoSection {
  id: number
  code: string
  course: string
  term: string
  number: string
  kind: 'lecture' | 'lab' | 'studio' | 'seminar'
  parent: number | null
  session: 'FULL' | 'H1' | 'H2'
  campus: string
  mode: 'inPerson' | 'onlineHours' | 'online' | 'mixed'
  credits: number
  creditsMost: number | null
  capacity: number
  waitCapacity: number
  block: string | null
  officeOnly: boolean
  permissionNeeded: boolean
  onlyFor: { programs: string[]; standings: ('senior' | 'graduate')[] } | null
  /** Where it differs from its course. */
  prerequisite: string | null
  categories: string[] | null
  offSite: string | null
  /** Seats kept for the students of a program. */
  kept: { program: string; seats: number } | null
  instructor: number
  meetings: DemoMeeting[]
}

export interface DemoInstructor {
  id: number
  name: string
  subject: string
}

const GIVEN = [
  'Ada',
  'Tomas',
  'Greta',
  'Idris',
  'Noor',
  'Silas',
  'Petra',
  'Anselm',
  'Maren',
  'Odell',
  'Yara',
  'Fenwick',
  'Livia',
  'Corin',
  'Sunniva',
  'Emeka'
]
const FAMILY = [
  'Brandvold',
  'Ashgrove',
  'Pell',
  'Okafor-Lind',
  'Marchetti',
  'Tarn',
  'Wexcombe',
  'Ravensdale',
  'Ilves',
  'Quist',
  'Harker',
  'Dunmore',
  'Sefton',
  'Aldous',
  'Varley',
  'Nordhage',
  'Beck',
  'Osei',
  'Lumley',
  'Thorne'
]
const INSTRUCTORS_A_SUBJECT = 4

const PAIRS: [string, string, string][] = [
  ['MW', '8:00', '9:15'],
  ['MW', '9:30', '10:45'],
  ['MW', '11:00', '12:15'],
  ['MW', '14:15', '15:30'],
  ['TR', '8:00', '9:15'],
  ['TR', '9:30', '10:45'],
  ['TR', '11:00', '12:15'],
  ['TR', '13:00', '14:15'],
  ['TR', '14:30', '15:45'],
  ['MWF', '10:00', '10:50'],
  ['MWF', '13:00', '13:50']
]
const EVENINGS: [string, string, string][] = ['M', 'T', 'W', 'R'].map((day) => [day, '18:00', '20:45'])
const LABS: [string, string, string][] = [
  ...['M', 'W', 'T', 'R'].map((day): [string, string, string] => [day, '15:50', '18:20']),
  ['F', '9:00', '11:30'],
  ['F', '13:00', '15:30'],
  ['R', '14:45', '17:15']
]

/** How many sections a course gets: the common ones many, the others one or two. */
const COMMON = new Set([
  'WRIT 101',
  'WRIT 102',
  'STAT 110',
  'MATH 110',
  'MATH 125',
  'SPCH 101',
  'ENVI 101',
  'LANG 140',
  'WRIT 215',
  'CSCI 101'
])
const SUMMER = new Set([
  'WRIT 101',
  'WRIT 102',
  'STAT 110',
  'MATH 110',
  'MATH 125',
  'SPCH 101',
  'HERI 105',
  'GEOG 118',
  'ECON 101',
  'CSCI 101',
  'LANG 101',
  'ARTS 110',
  'ENVI 120',
  'GEOS 101',
  'ETHI 101',
  'MUSI 101',
  'SOIL 110',
  'HYDR 105',
  'CHEM 101',
  'STAT 212'
])

/** Saturdays in the field, by block. */
const FIELD_DAYS: Record<string, string> = {
  heron: '2027-10-09',
  kestrel: '2027-10-16',
  plover: '2027-11-06'
}

/** Sections of the autumn that differ from their course. */
const OWN: Record<string, Partial<Pick<DemoSection, 'prerequisite' | 'categories' | 'offSite'>>> = {
  'ENVI 120-01': { offSite: 'Tern Island station', categories: ['field', 'place'] },
  'SPCH 101-02': { categories: ['place'] },
  'STAT 110-04': { prerequisite: 'MATH 110 or MATH 125', categories: ['number', 'lab'] }
}

/** What a cohort of the second year takes together. */
export const COHORT_COURSES = ['GEOS 210', 'GEOS 240', 'FELD 210']

/** Adds a section with these hours in a room; without hours it is online. */
type Writing = (
  course: string,
  hours: [string, string, string] | null,
  room: string | null,
  over?: Partial<DemoSection>
) => DemoSection

export class OfferBuilder {
  readonly sections: DemoSection[] = []
  readonly instructors: DemoInstructor[] = []
  private readonly busy = new Map<string, [number, number, string][]>()
  private issued = 811

  constructor(private random: Random) {
    for (const subject of Object.keys(SUBJECTS)) {
      for (let i = 0; i < INSTRUCTORS_A_SUBJECT; i++) {
        const n = this.instructors.length
        const name = `${GIVEN[(n * 7 + 3) % GIVEN.length]} ${FAMILY[(n * 3 + Math.floor(n / FAMILY.length)) % FAMILY.length]}`
        this.instructors.push({ id: n + 1, name, subject })
      }
    }
  }

  build(): this {
    for (const code of ['SP27', 'SU27', 'AU27']) {
      const term = terms.find((t) => t.code === code)!
      if (code === 'AU27') this.writtenByHand(term)
      for (const course of courses) this.generate(course, term)
    }
    for (const section of this.sections) {
      const own = section.term === 'AU27' ? OWN[`${section.course}-${section.number}`] : undefined
      if (!own) continue
      Object.assign(section, own)
      if (own.offSite) for (const meeting of section.meetings) meeting.room = null
    }
    return this
  }

  /** Adds the terms that are over, as they were offered; returns how many seats were taken, by section. */
  buildPast(random: Random): Map<number, number> {
    this.random = random
    const first = this.sections.length
    for (const code of PAST_TERMS) {
      const term = terms.find((t) => t.code === code)!
      for (const course of courses) this.generate(course, term)
    }
    const taken = new Map<number, number>()
    for (const { id, parent, capacity } of this.sections.slice(first)) {
      const share = parent === null ? capacity * (0.5 + 0.5 * random.next()) : taken.get(parent)! / 2
      taken.set(id, Math.min(capacity, Math.floor(share)))
    }
    return taken
  }

  /** The courses the demo walks through, with hours that make a telling week. */
  private writtenByHand(term: DemoTerm): void {
    const at: Writing = (course, hours, room, over = {}) =>
      this.add(term, course, {
        ...over,
        ...(hours
          ? { meetings: [this.hours(hours, room)] }
          : { mode: 'online', campus: 'ONLINE', meetings: [] })
      })

    at('ENDA 310', ['MW', '9:30', '10:45'], 'Slate 204', { capacity: 36 })
    at('ENDA 310', ['TR', '9:30', '10:45'], 'Slate 210', { capacity: 24 })
    at('ENDA 325', ['MW', '14:15', '15:30'], 'Slate 310', {
      capacity: 30,
      kept: { program: 'ENVD', seats: 8 }
    })
    at('ENDA 325', ['TR', '15:50', '17:05'], 'Slate 310', { capacity: 30 })
    at('ENDA 325', null, null, { capacity: 60 })
    at('ENDA 325', ['MW', '16:15', '17:30'], 'Slate 310', { capacity: 24 })
    at('ENDA 325', ['F', '9:00', '11:45'], 'Harbour 12', { capacity: 12, campus: 'HARBOUR' })
    const soil = at('SOIL 220', ['TR', '13:00', '14:15'], 'Fern 12', { capacity: 24 })
    at('SOIL 220', ['R', '14:45', '17:15'], 'Boathouse 2', {
      kind: 'lab',
      parent: soil.id,
      capacity: 12,
      campus: 'HARBOUR'
    })
    at('SOIL 220', ['F', '9:00', '11:30'], 'Larch 1', { kind: 'lab', parent: soil.id, capacity: 12 })
    const soilTwo = at('SOIL 220', ['MW', '9:30', '10:45'], 'Fern 14', { capacity: 24 })
    at('SOIL 220', ['T', '14:45', '17:15'], 'Larch 1', { kind: 'lab', parent: soilTwo.id, capacity: 12 })
    at('MATH 231', ['MW', '11:00', '12:15'], 'Slate 110', { capacity: 40 })
    at('MATH 231', ['TR', '8:00', '9:15'], 'Slate 110', { capacity: 40 })
    at('HYDR 331', ['MW', '14:15', '15:30'], 'Fern 14', { capacity: 20 })
    at('HYDR 332', ['F', '13:00', '15:30'], 'Boathouse 1', { kind: 'lab', capacity: 12, campus: 'HARBOUR' })
    at('WRIT 215', ['TR', '9:30', '12:00'], 'Fern 5', { session: 'H1', capacity: 22 })
    at('WRIT 215', ['TR', '9:30', '12:00'], 'Fern 5', { session: 'H2', capacity: 22 })
    at('WRIT 215', ['M', '18:00', '20:45'], 'Fern 5', { capacity: 18 })

    this.writtenCohorts(at)
  }

  /** Cohort sections: within a block nothing clashes. */
  private writtenCohorts(at: Writing): void {
    const cohort: [string, [string, string, string][]][] = [
      [
        'heron',
        [
          ['MW', '9:30', '10:45'],
          ['MW', '11:00', '12:15'],
          ['F', '13:00', '15:45']
        ]
      ],
      [
        'kestrel',
        [
          ['TR', '9:30', '10:45'],
          ['TR', '11:00', '12:15'],
          ['W', '13:00', '15:45']
        ]
      ],
      [
        'plover',
        [
          ['MW', '18:00', '19:15'],
          ['TR', '18:00', '19:15'],
          ['F', '17:30', '20:15']
        ]
      ]
    ]
    for (const [block, hours] of cohort) {
      COHORT_COURSES.forEach((course, i) => {
        const section = at(course, hours[i]!, 'Harbour 14', { block, campus: 'HARBOUR', capacity: 16 })
        if (course === 'FELD 210')
          section.meetings.push({ ...this.hours(['S', '9:00', '16:00'], null), on: FIELD_DAYS[block]! })
      })
    }
  }

  private generate(course: Course, term: DemoTerm): void {
    if (this.sections.some((s) => s.term === term.code && s.course === course.code)) return
    const summer = term.season === 'summer'
    if (
      summer
        ? !SUMMER.has(course.code) && !usuallyRuns(course.offered, term)
        : !runsIn(course, { ...term, start: '', end: '', published: false }, new Map())
    )
      return
    const count =
      COMMON.has(course.code) && !summer
        ? 5
        : course.yearLevel <= 2 && !summer && this.random.chance(0.45)
          ? 2
          : 1
    for (let i = 0; i < count; i++) this.one(course, term, i)
  }

  private one(course: Course, term: DemoTerm, index: number): void {
    const lab = course.categories.includes('lab') && course.credits >= 3
    const single = course.credits <= 1
    const online = !lab && (course.code === 'LANG 140' ? index !== 1 : index > 0 && this.random.chance(0.3))
    const halved =
      !lab && !online && course.credits <= 3 && term.season !== 'summer' && this.random.chance(0.12)
    const evening = index === 2 || (!lab && this.random.chance(0.08))
    const base: Partial<DemoSection> = {
      session: halved ? (this.random.chance(0.5) ? 'H1' : 'H2') : 'FULL',
      capacity: lab ? 24 : COMMON.has(course.code) ? 22 : 18,
      permissionNeeded: course.prerequisite.includes('permission'),
      onlyFor:
        course.code === 'ENDA 490' || course.code === 'STAT 420'
          ? { programs: [], standings: ['senior', 'graduate'] }
          : null
    }
    if (online) {
      const isWithout = this.random.chance(0.6)
      this.add(term, course.code, {
        ...base,
        mode: isWithout ? 'online' : 'onlineHours',
        campus: 'ONLINE',
        session: 'FULL',
        capacity: 30,
        meetings: isWithout ? [] : [this.hours(this.random.pick(EVENINGS), null)]
      })
      return
    }
    const harbour = this.random.chance(0.22)
    const choices = single ? LABS : evening ? EVENINGS : this.random.shuffled(PAIRS)
    const meeting = this.placed(term, base.session!, choices, harbour ? 'HARBOUR' : 'HILL', false)
    const campus = meeting.room === null ? 'HILL' : rooms[meeting.room]!.campus
    const main = this.add(term, course.code, {
      ...base,
      campus,
      kind: course.categories.includes('studio') ? 'studio' : 'lecture',
      meetings: [meeting]
    })
    if (!lab) return
    for (let i = 0; i < 2; i++) {
      const meeting = this.placed(term, 'FULL', this.random.shuffled(LABS), 'HILL', true)
      this.add(term, course.code, {
        kind: 'lab',
        parent: main.id,
        capacity: 12,
        campus: 'HILL',
        meetings: [meeting]
      })
    }
  }

  /** A pattern for which a room of the campus is free. */
  private placed(
    term: DemoTerm,
    session: string,
    choices: [string, string, string][],
    campus: string,
    lab: boolean
  ): DemoMeeting {
    for (const hours of choices) {
      const [days, start, end] = hours
      const free = rooms.findIndex(
        (room, i) =>
          room.campus === campus &&
          room.lab === lab &&
          this.isFree(`${term.code} room ${i}`, days, minutes(start), minutes(end), session)
      )
      if (free >= 0) {
        this.take(`${term.code} room ${free}`, days, minutes(start), minutes(end), session)
        return { days, start: minutes(start), end: minutes(end), room: free }
      }
    }
    return this.hours(this.random.pick(choices), null)
  }

  private hours([days, start, end]: [string, string, string], room: string | null): DemoMeeting {
    const found = room === null ? null : rooms.findIndex((r) => `${r.building} ${r.name}` === room)
    return { days, start: minutes(start), end: minutes(end), room: found }
  }

  private isFree(who: string, days: string, start: number, end: number, session: string): boolean {
    return parseDayLetters(days)!.every((day) =>
      (this.busy.get(`${who} ${day}`) ?? []).every(
        ([from, to, other]) => end <= from || to <= start || differ(session, other)
      )
    )
  }

  private take(who: string, days: string, start: number, end: number, session: string): void {
    for (const day of parseDayLetters(days)! as Weekday[]) {
      const key = `${who} ${day}`
      this.busy.set(key, [...(this.busy.get(key) ?? []), [start, end, session]])
    }
  }

  private add(term: DemoTerm, course: string, over: Partial<DemoSection>): DemoSection {
    const about = courses.find((c) => c.code === course)!
    const credits = over.parent ? 0 : about.credits
    const mostCredits = about.creditsMost
    const parent = this.sections.find((s) => s.id === over.parent)
    const siblings = this.sections.filter((s) => s.term === term.code && s.course === course)
    const number = parent
      ? parent.number + 'ABCDEF'[siblings.filter((s) => s.parent === parent.id).length]!
      : String(siblings.filter((s) => s.parent === null).length + 1).padStart(2, '0')
    let code: string | undefined
    while (!code) code = sectionCodeAt(((this.issued += 3) * 257) % 32 ** 4)
    const section: DemoSection = {
      id: this.sections.length + 1,
      code,
      course,
      term: term.code,
      number,
      kind: 'lecture',
      parent: null,
      session: 'FULL',
      campus: 'HILL',
      mode: 'inPerson',
      credits,
      creditsMost: over.parent || mostCredits <= credits ? null : mostCredits,
      capacity: 20,
      waitCapacity: 6,
      block: null,
      officeOnly: false,
      permissionNeeded: false,
      onlyFor: null,
      prerequisite: null,
      categories: null,
      offSite: null,
      kept: null,
      instructor: parent?.instructor ?? this.teacher(course, term, over),
      meetings: [],
      ...over
    }
    for (const meeting of section.meetings) {
      const { days, start, end } = meeting
      this.take(`${term.code} instructor ${section.instructor}`, days, start, end, section.session)
      if (meeting.room !== null)
        this.take(`${term.code} room ${meeting.room}`, days, start, end, section.session)
    }
    this.sections.push(section)
    return section
  }

  private teacher(course: string, term: DemoTerm, over: Partial<DemoSection>): number {
    const own = this.random.shuffled(this.instructors.filter((i) => i.subject === course.split(' ')[0]))
    const free = own.find((who) =>
      (over.meetings ?? []).every((m) =>
        this.isFree(`${term.code} instructor ${who.id}`, m.days, m.start, m.end, over.session ?? 'FULL')
      )
    )
    return (free ?? own[0]!).id
  }
}

function differ(a: string, b: string): boolean {
  return (a === 'H1' && b === 'H2') || (a === 'H2' && b === 'H1')
}

/** First and last date of a section's meetings. */
export function datesOf(section: Pick<DemoSection, 'term' | 'session'>): { fromOn: string; toOn: string } {
  const term = terms.find((t) => t.code === section.term)!
  const session = sessionsOf(term).find((s) => s.code === section.session)!
  return { fromOn: session.startsOn, toOn: session.endsOn }
}
