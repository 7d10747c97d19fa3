/** The year without signing in: its terms drawn, their dates in order, when registration opens, and all of it as a calendar. */
import { h, type VNode } from 'vue'
import { dayNumber, type IsoDate } from '#core/time'
import type { Opening } from '#core/registration'
import type { TermView } from '#shared/catalog/responses'
import { datesOfTerm, type TermDate } from '#shared/route/termDates'
import { campusDate, dayMonth, dayText, deadlineText, instantText, MONTHS } from '#shared/when'
import type { Database } from '#server/db/connect'
import { calendarOf } from '#server/features/route/calendar'
import { campusNow } from '#server/gateways/clock'
import { frameOf, guidanceIn, publicData, publicOpenings, termsShown } from './data'
import { table, type PageParts } from './parts'

export async function yearPage(db: Database): Promise<PageParts> {
  const data = await publicData(db)
  const terms = await termsShown(db, data)
  const { zone } = data.catalogContext
  const today = campusDate(await campusNow(db), zone)
  const openings = await publicOpenings(db)
  const ahead = datesOf(terms, openings)
    .map((date) => ({ date, on: dayOf(date, zone) }))
    .filter(({ on }) => on >= today)
    .sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0))
  const rows = ahead.map(({ date, on }) =>
    h('tr', [h('th', { scope: 'row' }, whenOf(date, zone)), h('td', date.title), h('td', inDays(on, today))])
  )
  return {
    ...frameOf(data),
    place: '/public',
    title: 'The year',
    beside: h('a', { href: '/public/calendar.ics' }, 'As a calendar (.ics)'),
    body: terms.length
      ? [
          guidanceIn(data, 'everybody'),
          drawn(terms, openings, today, zone),
          table(['When', 'What', ''], rows, 'Dates ahead')
        ]
      : h('p', 'No term is published at the moment.')
  }
}

/** Dates of published terms as iCalendar (RFC 5545). */
export async function yearCalendar(db: Database): Promise<string> {
  const data = await publicData(db)
  const dates = datesOf(await termsShown(db, data), await publicOpenings(db))
  return calendarOf(`${data.catalog.institution.name}: the year`, dates, await campusNow(db))
}

export async function openingsPage(db: Database): Promise<PageParts> {
  const data = await publicData(db)
  const { zone } = data.catalogContext
  const openings = await publicOpenings(db)
  const tables = (await termsShown(db, data)).flatMap((term) => {
    const own = openings.filter((one) => one.term === term.code)
    if (!own.length) return []
    const rows = own.map((one) =>
      h('tr', [h('th', { scope: 'row' }, instantText(one.opens, zone)), h('td', one.title)])
    )
    return [table(['Opens', 'For'], rows, `Registration for ${term.name}`)]
  })
  return {
    ...frameOf(data),
    place: '/public/openings',
    title: 'Openings',
    body: tables.length ? tables : h('p', 'No opening is set for a term that is published.')
  }
}

function datesOf(terms: readonly TermView[], openings: readonly Opening[]): TermDate[] {
  return terms.flatMap((term) => [
    ...openings
      .filter((one) => one.term === term.code)
      .map((one) => ({
        uid: `${term.code}-opens-${one.opens}-${one.title.toLowerCase().replace(/[^a-z0-9]+/g, '-')}@ridgeway`,
        title: `Registration for ${term.name} opens: ${one.title}`,
        at: one.opens
      })),
    ...datesOfTerm(term)
  ])
}

/** A deadline at midnight is the end of the day before. */
const dayOf = (date: TermDate, zone: string): IsoDate =>
  'on' in date ? date.on : campusDate(date.at - 1, zone)
const whenOf = (date: TermDate, zone: string): string =>
  'on' in date ? dayText(date.on) : deadlineText(date.at, zone)

function inDays(on: IsoDate, today: IsoDate): string {
  const days = dayNumber(on) - dayNumber(today)
  return days === 0 ? 'today' : days === 1 ? 'tomorrow' : `in ${days} days`
}

const WIDTH = 1000
const ROW = 34
const NAME = 90

/** The terms as bars over the months, free days as gaps, openings as flags, today as a line. */
function drawn(
  terms: readonly TermView[],
  openings: readonly Opening[],
  today: IsoDate,
  zone: string
): VNode {
  const first = dayNumber(`${today.slice(0, 7)}-01`)
  const last = Math.max(...terms.map((term) => dayNumber(term.end))) + 14
  const x = (day: number) => Math.round(((Math.max(day, first) - first) / (last - first)) * WIDTH * 10) / 10
  const months = drawnMonths(today, last, x, 24 + terms.length * ROW)
  const now = x(dayNumber(today))
  const rows = terms.map((term, i) => {
    const opens = openings.filter((one) => one.term === term.code).map((one) => campusDate(one.opens, zone))
    return drawnTerm(term, new Set(opens), { first, now, y: 28 + i * ROW, x })
  })
  const label = `${terms.map((term) => `${term.name} from ${dayMonth(term.start)} to ${dayMonth(term.end)}`).join('; ')}. Today is ${dayMonth(today)}.`
  return h('div', { class: 'wide', role: 'region', 'aria-label': 'The terms over the months', tabindex: 0 }, [
    h(
      'svg',
      { class: 'year', viewBox: `0 0 ${WIDTH} ${30 + terms.length * ROW}`, role: 'img', 'aria-label': label },
      [
        ...months,
        ...rows,
        h('line', {
          x1: now,
          x2: now,
          y1: 20,
          y2: 30 + terms.length * ROW,
          class: 'today'
        })
      ]
    ),
    h(
      'p',
      { class: 'quiet small' },
      'Bars: classes. Gaps in them: days without. Flags: registration opens. The line: today.'
    )
  ])
}

/** Where a day stands, from the left. */
type Across = (day: number) => number

/** A line at the first of each month, and its name. */
function drawnMonths(today: IsoDate, last: number, x: Across, height: number): VNode[] {
  const months: VNode[] = []
  for (let [year, month] = today.split('-').map(Number) as [number, number]; ; month++) {
    if (month > 12) [year, month] = [year + 1, 1]
    const day = dayNumber(`${year}-${String(month).padStart(2, '0')}-01`)
    if (day > last) break
    months.push(
      h('line', { x1: x(day), x2: x(day), y1: 0, y2: height, class: 'month' }),
      h(
        'text',
        { x: x(day) + 5, y: 14, class: 'label' },
        `${MONTHS[month - 1]}${month === 1 ? ` ${year}` : ''}`
      )
    )
  }
  return months
}

function drawnTerm(
  term: TermView,
  opens: ReadonlySet<IsoDate>,
  { first, now, y, x }: { first: number; now: number; y: number; x: Across }
): VNode {
  const [from, to] = [x(dayNumber(term.start)), x(dayNumber(term.end) + 1)]
  // The line of today would go through the name.
  const isUnder = now >= from && now < from + NAME
  return h('g', [
    h('rect', { x: from, y, width: Math.max(2, to - from), height: 22, rx: 6, class: 'term' }),
    ...term.holidays
      .filter(({ date }) => dayNumber(date) >= first)
      .map(({ date }) => h('rect', { x: x(dayNumber(date)), y, width: 3, height: 22, class: 'free' })),
    ...[...opens]
      .filter((date) => dayNumber(date) >= first)
      .map((date) => h('path', { d: `M${x(dayNumber(date))} ${y + 22} v-22 l9 5 l-9 5`, class: 'flag' })),
    h('text', { x: (isUnder ? now : from) + 8, y: y + 15, class: 'name' }, term.name)
  ])
}
