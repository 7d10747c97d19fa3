/** Harrowmere College: campuses, rooms, terms and openings. */
import { DateTime } from 'luxon'
import type { Season } from '#core/catalog'
import { termCode, type TermCode } from '#core/ids'
import type { Standing } from '#core/requisites'

export const ZONE = 'America/New_York'

/** The instant of a campus time such as `2027-04-12T07:00`. */
export function campusTime(text: string): Date {
  return DateTime.fromISO(text, { zone: ZONE }).toJSDate()
}

/** Where the campus clock stands when the demo is loaded. */
export const DEMO_NOW = campusTime('2027-04-09T09:40')

export const campuses = [
  { code: 'HILL', name: 'Hill campus' },
  { code: 'HARBOUR', name: 'Harbour campus' },
  { code: 'ONLINE', name: 'Online' }
] as const

export const TRAVEL_MINUTES = 25

const LECTURE_ROOM = 40
const LAB_ROOM = 20
export const rooms: { campus: string; building: string; name: string; seats: number; lab: boolean }[] = [
  ...['101', '110', '118', '204', '210', '310'].map((name) => ({
    campus: 'HILL',
    building: 'Slate',
    name,
    seats: LECTURE_ROOM,
    lab: false
  })),
  ...['2', '5', '8', '12', '14'].map((name) => ({
    campus: 'HILL',
    building: 'Fern',
    name,
    seats: LECTURE_ROOM,
    lab: false
  })),
  ...['1', '2', '3', '4'].map((name) => ({
    campus: 'HILL',
    building: 'Larch',
    name,
    seats: LAB_ROOM,
    lab: true
  })),
  ...['11', '12', '14'].map((name) => ({
    campus: 'HARBOUR',
    building: 'Harbour',
    name,
    seats: LECTURE_ROOM,
    lab: false
  })),
  ...['1', '2', '3'].map((name) => ({
    campus: 'HARBOUR',
    building: 'Boathouse',
    name,
    seats: LAB_ROOM,
    lab: true
  }))
]

export interface DemoTerm {
  code: TermCode
  name: string
  season: Season
  year: number
  startsOn: string
  endsOn: string
  published: boolean
}

/** Terms that are over, of which the sections are kept. */
export const PAST_TERMS = ['SU25', 'AU25', 'SP26', 'SU26', 'AU26']
const PUBLISHED = [...PAST_TERMS, 'SP27', 'SU27', 'AU27']

function firstWeekday(year: number, month: number, day: number, weekday: number): DateTime {
  let date = DateTime.utc(year, month, day)
  while (date.weekday !== weekday) date = date.plus({ days: 1 })
  return date
}

function term(season: Exclude<Season, 'winter'>, year: number): DemoTerm {
  const shape = {
    spring: { letters: 'SP', name: 'Spring', start: firstWeekday(year, 1, 18, 1), weeks: 17 },
    summer: { letters: 'SU', name: 'Summer', start: firstWeekday(year, 6, 3, 1), weeks: 8 },
    autumn: { letters: 'AU', name: 'Autumn', start: firstWeekday(year, 8, 27, 1), weeks: 16 }
  }[season]
  const code = `${shape.letters}${year % 100}`
  return {
    code: termCode(code),
    name: `${shape.name} ${year}`,
    season,
    year,
    startsOn: shape.start.toISODate()!,
    endsOn: shape.start.plus({ weeks: shape.weeks }).minus({ days: 3 }).toISODate()!,
    published: PUBLISHED.includes(code)
  }
}

/** Autumn 2023 to Spring 2031. */
export const terms: DemoTerm[] = Array.from({ length: 8 }, (_, i) => 2023 + i)
  .flatMap((year) => [term('autumn', year), term('spring', year + 1), term('summer', year + 1)])
  .slice(0, -1)

export function sessionsOf({ startsOn, endsOn, season }: DemoTerm) {
  const half = DateTime.fromISO(startsOn).plus({ weeks: season === 'summer' ? 4 : 8 })
  const midnight = (day: string | DateTime, days: number) => {
    const date = typeof day === 'string' ? DateTime.fromISO(day) : day
    return campusTime(`${date.plus({ days }).toISODate()}T00:00`)
  }
  return [
    { code: 'FULL', name: 'Full term', half: 'full' as const, startsOn, endsOn },
    {
      code: 'H1',
      name: 'First half',
      half: 'first' as const,
      startsOn,
      endsOn: half.minus({ days: 3 }).toISODate()!,
      addEndsAt: midnight(startsOn, 5),
      dropFreeEndsAt: midnight(startsOn, 8),
      dropEndsAt: midnight(half, -14)
    },
    {
      code: 'H2',
      name: 'Second half',
      half: 'second' as const,
      startsOn: half.toISODate()!,
      endsOn,
      dropFreeEndsAt: midnight(half, 8)
    }
  ]
}

export function holidaysOf({ season, year }: DemoTerm): { onDate: string; name: string }[] {
  if (season === 'autumn') {
    const labor = firstWeekday(year, 9, 1, 1)
    const thanks = firstWeekday(year, 11, 22, 4)
    return [
      { onDate: labor.toISODate()!, name: 'Labor Day' },
      ...[-1, 0, 1].map((shift) => ({
        onDate: thanks.plus({ days: shift }).toISODate()!,
        name: 'Thanksgiving recess'
      }))
    ]
  }
  if (season === 'summer') return [{ onDate: `${year}-07-05`, name: 'Summer holiday' }]
  const recess = firstWeekday(year, 3, 8, 1)
  return [0, 1, 2, 3, 4].map((shift) => ({
    onDate: recess.plus({ days: shift }).toISODate()!,
    name: 'Spring recess'
  }))
}

export const openings: {
  term: string
  title: string
  at: string
  standings: Standing[]
  programs?: string[]
}[] = [
  { term: 'SU27', title: 'everybody', at: '2027-03-15T07:00', standings: [] },
  {
    term: 'AU27',
    title: 'fourth-year and graduate students',
    at: '2027-04-08T07:00',
    standings: ['senior', 'graduate']
  },
  { term: 'AU27', title: 'third-year students', at: '2027-04-12T07:00', standings: ['junior'] },
  {
    term: 'AU27',
    title: 'second-year BSc and BA students',
    at: '2027-04-13T07:00',
    standings: ['sophomore'],
    programs: ['ENVD', 'HERI']
  },
  {
    term: 'AU27',
    title: 'second-year AAS students',
    at: '2027-04-14T07:00',
    standings: ['sophomore'],
    programs: ['GEOF']
  },
  {
    term: 'AU27',
    title: 'first-year and newly admitted students',
    at: '2027-04-15T07:00',
    standings: ['freshman']
  }
]

const LAND = 'Land and Water'
const NUMBERS = 'Numbers and Code'
const LETTERS = 'Letters and Arts'

export const SUBJECTS: Record<string, { name: string; college: string }> = {
  ENDA: { name: 'Environmental Data', college: LAND },
  ENVI: { name: 'Environmental Science', college: LAND },
  HYDR: { name: 'Hydrology', college: LAND },
  SOIL: { name: 'Soil Science', college: LAND },
  FELD: { name: 'Field Practice', college: LAND },
  GEOS: { name: 'Geospatial Science', college: LAND },
  CSCI: { name: 'Computer Science', college: NUMBERS },
  MATH: { name: 'Mathematics', college: NUMBERS },
  STAT: { name: 'Statistics', college: NUMBERS },
  CHEM: { name: 'Chemistry', college: LAND },
  BIOL: { name: 'Biology', college: LAND },
  WRIT: { name: 'Writing', college: LETTERS },
  SPCH: { name: 'Speaking', college: LETTERS },
  HERI: { name: 'Heritage', college: LETTERS },
  ECON: { name: 'Economics', college: NUMBERS },
  GEOG: { name: 'Geography', college: LAND },
  ARTS: { name: 'Art', college: LETTERS },
  MUSI: { name: 'Music', college: LETTERS },
  LANG: { name: 'Languages', college: LETTERS },
  ETHI: { name: 'Ethics', college: LETTERS }
}

export const CATEGORIES = [
  { family: 'Way of working', code: 'lab', title: 'Laboratory' },
  { family: 'Way of working', code: 'field', title: 'Field' },
  { family: 'Way of working', code: 'studio', title: 'Studio' },
  { family: 'General studies', code: 'place', title: 'People and place' },
  { family: 'General studies', code: 'number', title: 'Number' }
]

/** What sections of a course are about, by their number, where they differ. */
export const TOPICS: Record<string, string[]> = {
  'HERI 210': ['Drowned villages', 'Roads of pilgrims'],
  'GEOG 140': ['Islands and their ferries'],
  'ENDA 205': ['Drawing floods', 'Drawing the night sky'],
  'WRIT 215': ['Letters home', 'Reports that are read', 'Evening workshop']
}

export const BLOCKS = [
  { code: 'heron', title: 'Heron' },
  { code: 'kestrel', title: 'Kestrel' },
  { code: 'plover', title: 'Plover' }
]
