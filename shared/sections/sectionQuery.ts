/** A search for sections: what is typed and what it means, and how it stands in the address of a page. */
import { parseDayLetters, parseSectionCode } from '#core/formats'
import { COURSE_NUMBER, maybeTermCode } from '#core/ids'
import type { SectionFilter } from '#core/search'
import type { Minutes, Weekday } from '#core/time'
import { MODES, type Section } from '#core/week'
import { LONG_DAY_NAMES } from '#shared/when'
import { sectionName } from '#shared/week/texts'

export const SECTION_SORTS = ['best', 'course', 'hour', 'seats', 'instructor'] as const
export type SectionSort = (typeof SECTION_SORTS)[number]

export interface SectionQuery {
  text: string
  /** Null for the coming one. */
  term: string | null
  sort: SectionSort
  /** With the sections that only an office registers. */
  office: boolean
  filter: SectionFilter
}

/** What somebody typed: words, and days and hours among them. */
export interface TypedQuery {
  words: string[]
  days: Weekday[] | undefined
  from: Minutes | undefined
  to: Minutes | undefined
}

const HOURS = /^(\d{1,2})(?::([0-5]\d))?(am|pm)?[-–](\d{1,2})(?::([0-5]\d))?(am|pm)?$/i
/** A number after a word belongs to it: `ENVI 310-02`, `Slate 204`. */
const NUMBER = new RegExp(String.raw`^${COURSE_NUMBER}(-\d{1,3}[A-Za-z]?)?$`)
const DAY_WORDS: readonly string[] = Object.values(LONG_DAY_NAMES).map((name) => name.toLowerCase())
/** `Mon`, `tues`, `Wednesday`: three letters of a day, or more. */
function dayWord(token: string): Weekday | undefined {
  const word = token.toLowerCase().replace(/s$/, '')
  if (word.length < 3) return undefined
  const at = DAY_WORDS.findIndex((name) => name.startsWith(word))
  return at < 0 ? undefined : ((at + 1) as Weekday)
}
const LETTERS_ONLY = /^[a-z]+$/
const LETTERS = /^[MTWRFSU]{1,7}$/

/**
 * Reads what is typed: `TR 9-12` and `Tue Thu 9–12` are Tuesday and Thursday between nine and noon. Day letters are
 * capitals, days in words begin with one; hours from 1 to 7 are in the afternoon unless they say am.
 */
export function readTyped(text: string): TypedQuery {
  const typed: TypedQuery = { words: [], days: undefined, from: undefined, to: undefined }
  const joined = text.replace(/(\d)\s+(am|pm)\b/gi, '$1$2')
  for (const token of joined.trim().split(/\s+/).filter(Boolean)) {
    const span = HOURS.exec(token)
    const days = LETTERS.test(token) ? parseDayLetters(token) : undefined
    const day = /^[A-Z]/.test(token) ? dayWord(token) : undefined
    if (day) typed.days = [...new Set([...(typed.days ?? []), day])].sort((a, b) => a - b)
    else if (span) {
      const [, h1, m1, half1, h2, m2, half2] = span
      // `8:00–9:15 pm` is all in the evening, `11:00–1:00 pm` is not.
      const shared = Number(h1) % 12 <= Number(h2) % 12 ? half2 : undefined
      typed.from = minuteOf(Number(h1), Number(m1 ?? 0), half1 ?? shared)
      typed.to = minuteOf(Number(h2), Number(m2 ?? 0), half2)
    } else if (days) typed.days = days
    else if (NUMBER.test(token) && LETTERS_ONLY.test(typed.words.at(-1) ?? ''))
      typed.words.push(`${typed.words.pop()} ${token.toLowerCase()}`)
    else typed.words.push(token.toLowerCase())
  }
  return typed
}

function minuteOf(hour: number, minute: number, half: string | undefined): Minutes {
  const isLate = half ? half.toLowerCase() === 'pm' && hour < 12 : hour >= 1 && hour <= 7
  return ((isLate ? hour + 12 : hour) % 25) * 60 + minute
}

/** What words can find of a section: every word of it, in small letters. */
export function haystackOf(
  section: Section,
  title: string,
  subject: string,
  parts: readonly Section[],
  placeOf: (section: Section) => string = () => ''
): string {
  return [
    section.course,
    sectionName(section),
    section.course.replace(' ', ''),
    title,
    subject,
    section.topic ?? '',
    section.block ?? '',
    ...[section, ...parts].flatMap((one) => [
      one.code,
      ...one.instructors,
      placeOf(one),
      ...one.meetings.map((meeting) => meeting.room ?? meeting.building ?? '')
    ])
  ]
    .join(' ')
    .toLowerCase()
}

/** Several questions with commas between: a section of any of them is found. */
export function readAllTyped(text: string): TypedQuery[] {
  const parts = text.split(',').filter((one) => one.trim())
  return (parts.length ? parts : ['']).map(readTyped)
}

/** Whether a section has every word, each at the beginning of one of its own, and meets as typed. */
export function isTyped(
  haystack: string,
  section: Pick<Section, 'meetings'>,
  { words, days, from, to }: TypedQuery
): boolean {
  const padded = ` ${haystack}`
  if (!words.every((word) => padded.includes(` ${word}`))) return false
  if (days === undefined && from === undefined) return true
  return section.meetings.some(
    (one) =>
      (days === undefined ||
        (one.days.length === days.length && days.every((day) => one.days.includes(day)))) &&
      (from === undefined || (one.start >= from && one.end <= to!))
  )
}

/** The code of a section, where one is typed. */
export function typedCode(text: string): string | undefined {
  const read = parseSectionCode(text.trim())
  return read.ok ? read.code : undefined
}

type Address = Record<string, string>
const LISTS = [
  'subjects',
  'colleges',
  'campuses',
  'buildings',
  'sessions',
  'patterns',
  'blocks',
  'needs'
] as const
const FLAGS = ['noFee', 'noPermission', 'takable', 'fits'] as const
const RANGES = ['length', 'credits'] as const
const TIMES = ['after', 'before'] as const

const listOf = (text: string | undefined) => (text ?? '').split('~').filter(Boolean)
const numberOf = (text: string | undefined): number | undefined =>
  text !== undefined && /^\d+(\.5)?$/.test(text) ? Number(text) : undefined

/** Reads an address; what it does not understand is left out. */
export function readSectionQuery(address: Readonly<Record<string, unknown>>): SectionQuery {
  const get = (key: string) => (typeof address[key] === 'string' ? (address[key] as string) : undefined)
  const filter: SectionFilter = {}
  for (const key of LISTS) if (listOf(get(key)).length) filter[key] = listOf(get(key))
  for (const key of FLAGS) if (get(key) === 'yes') filter[key] = true
  for (const key of TIMES) if (numberOf(get(key)) !== undefined) filter[key] = numberOf(get(key))
  for (const key of RANGES) {
    const [least, most] = (get(key) ?? '').split('-').map(numberOf)
    if (least !== undefined && most !== undefined) filter[key] = { least, most }
  }
  const modes = MODES.filter((mode) => listOf(get('modes')).includes(mode))
  if (modes.length) filter.modes = modes
  const days = /^(any|only)([1-7]{1,7})$/.exec(get('days') ?? '')
  if (days) filter.days = { only: days[1] === 'only', of: [...days[2]!].map((one) => Number(one) as Weekday) }
  const seats = get('seats')
  if (seats === 'open' || seats === 'line') filter.seats = seats
  const serves = numberOf(get('serves'))
  if (serves) filter.serves = serves
  const families = listOf(get('categories'))
    .map((one) => one.split('.'))
    .flatMap(([family, ...of]) => (of.length ? [[family!, of] as const] : []))
  if (families.length) filter.categories = Object.fromEntries(families)
  return {
    text: get('q') ?? '',
    term: maybeTermCode(get('term') ?? '') ?? null,
    sort: SECTION_SORTS.find((sort) => sort === get('sort')) ?? 'best',
    office: get('office') === 'yes',
    filter
  }
}

/** The address of a search; what says nothing is left out. */
export function sectionAddress({ text, term, sort, office, filter }: SectionQuery): Address {
  const address: Record<string, string | undefined> = {
    q: text.trim() || undefined,
    term: term ?? undefined,
    sort: sort === 'best' ? undefined : sort,
    office: office ? 'yes' : undefined,
    modes: filter.modes?.join('~'),
    days: filter.days && `${filter.days.only ? 'only' : 'any'}${filter.days.of.join('')}`,
    seats: filter.seats,
    serves: filter.serves === undefined ? undefined : String(filter.serves),
    categories:
      filter.categories &&
      Object.entries(filter.categories)
        .filter(([, of]) => of.length)
        .map(([family, of]) => [family, ...of].join('.'))
        .join('~')
  }
  for (const key of LISTS) address[key] = filter[key]?.join('~')
  for (const key of FLAGS) address[key] = filter[key] ? 'yes' : undefined
  for (const key of TIMES) address[key] = filter[key] === undefined ? undefined : String(filter[key])
  for (const key of RANGES) address[key] = filter[key] && `${filter[key].least}-${filter[key].most}`
  return Object.fromEntries(
    Object.entries(address).filter((entry): entry is [string, string] => Boolean(entry[1]))
  )
}
