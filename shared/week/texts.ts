/** What is said of sections, clashes and wishes for a week. */
import type { Wish } from '#core/find'
import { isoDate } from '#core/time'
import type { OptionClash, Repair, Section, ShortWay, SincePicked } from '#core/week'
import type { KeepFree } from './responses'
import { clockTime, DAY_NAMES, dayMonth, hours, LONG_DAY_NAMES } from '#shared/when'
import { part, KIND_WORDS, MODE_WORDS, count } from '#shared/words'

/** `ENVI 310-02`: how people call a section; its code is for typing. */
export const sectionName = ({ course, number }: Pick<Section, 'course' | 'number'>): string =>
  `${course}-${number}`

/** `Mon Wed 9:30–10:45`, `Sat 9 Oct 9:00–16:00` */
function meetingText({ days, start, end, from, to }: Section['meetings'][number]): string {
  const names = days.map((day) => DAY_NAMES[day]).join(' ')
  return `${names}${from === to ? ` ${dayMonth(from)}` : ''} ${hours(start, end)}`
}

/** `Mon Wed 4:00 pm–8:00 pm`: hours on some days. */
export function daysAndHours({ days, start, end }: Pick<KeepFree, 'days' | 'start' | 'end'>): string {
  const names = days.map((day) => DAY_NAMES[day]).join(' ')
  if (start === 0 && end === 24 * 60) return `${names} all day`
  if (start === 0) return `${names} before ${clockTime(end)}`
  return end === 24 * 60 ? `${names} after ${clockTime(start)}` : `${names} ${hours(start, end)}`
}

/** `clashes with SOIL 220 lab Thu 2:45 pm, 14 dates`: what an option clashes with, and on how many dates. */
export function clashText({ with: other, clash }: OptionClash): string {
  const days = clash.days.map((day) => DAY_NAMES[day]).join(' ')
  const when = clash.dates === 1 ? `only on ${dayMonth(isoDate(clash.first))}` : `${clash.dates} dates`
  return `clashes with ${part(other)} ${days} ${clockTime(clash.start)}, ${when}`
}

/** `moves SOIL 220 to 01 with lab 01C`: what a repair changes. */
export function repairText({ moves }: Repair): string {
  return moves
    .map(({ from, to }) => {
      const stays = from.main.code === to.main.code
      const labs = to.components.filter((one) => !from.components.some((old) => old.code === one.code))
      const parts = labs.map((one) => `${KIND_WORDS[one.kind]} ${one.number}`)
      const target = stays ? parts.join(' and ') : [to.main.number, ...parts].join(' with ')
      return `moves ${to.course} to ${target}`
    })
    .join(' and ')
}

/** `25 minutes from SOIL 220 lab to ENDA 325, and 15 between them` */
export function wayText({ from, to, leave, arrive, takes, day }: ShortWay): string {
  return `${DAY_NAMES[day]}: ${takes} minutes from ${part(from)} to ${part(to)}, and ${arrive - leave} between them`
}

export const SINCE_WORDS: Record<SincePicked, string> = {
  cancelled: 'was cancelled',
  moved: 'has moved since you picked it',
  filled: 'has filled since you picked it'
}

/** `9 of 30 left`, `full, 3 in line`, `cancelled`: how a section stands. */
export function seatsText(section: Section): string {
  if (section.cancelled) return 'cancelled'
  if (section.officeOnly) return 'placed by an office'
  const left = section.capacity - section.taken
  if (left > 0) return `${left} of ${section.capacity} left`
  if (!section.waiting) return 'full'
  return section.waiting >= section.waitCapacity ? 'full, line full' : `full, ${section.waiting} in line`
}

export function sectionHours(section: Section): string {
  return section.meetings.length ? section.meetings.map(meetingText).join(', ') : MODE_WORDS[section.mode]
}

/** `Harbour 14`: where a section meets. */
export function sectionPlace({ meetings, mode }: Section): string {
  const rooms = [...new Set(meetings.flatMap((one) => one.room ?? []))]
  if (rooms.length) return rooms.join(', ')
  return mode === 'onlineHours' || mode === 'online' ? 'online' : 'a room that is not set yet'
}

/** `No classes on Friday`: a wish as it is put. */
export function wishText(wish: Wish): string {
  switch (wish.kind) {
    case 'fewestDays':
      return 'Few days with classes'
    case 'dayOff':
      return `No classes on ${LONG_DAY_NAMES[wish.day]}`
    case 'startsAfter':
      return `First class at ${clockTime(wish.time)} or later`
    case 'endsBefore':
      return `Last class over by ${clockTime(wish.time)}`
    case 'fewestHoursBetween':
      return 'Few hours between classes'
    case 'lunchFree':
      return `${wish.minutes} minutes for lunch between ${clockTime(wish.from)} and ${clockTime(wish.to)}`
    case 'evenDays':
      return 'Even load over the days'
    case 'oneCampusADay':
      return 'One campus a day'
    case 'mode':
      return `Rather ${wish.modes.map((one) => MODE_WORDS[one]).join(' or ')}`
    case 'instructors':
      return `Rather with ${wish.names.join(' or ')}`
    case 'seatsSafe':
      return 'Seats not at risk'
    case 'keptIfPossible':
      return 'Hours kept free if possible'
    case 'together':
      return 'Together with a friend'
  }
}

interface Demanded {
  courses: readonly string[]
  hours: readonly string[]
}

/** Why no week fits: what cannot hold together. */
export function conflictText({ courses, hours: kept }: Demanded): string {
  const all = [...courses, ...kept.map((name) => `free time ${name}`)]
  if (all.length === 1) return `No week fits: ${all[0]} cannot be had at all.`
  return `No week fits: ${all.slice(0, -1).join(', ')} and ${all.at(-1)} cannot hold together.`
}

/** What letting go of one thing would give. */
export function reliefText({ courses, hours: kept }: Demanded, weeks: number | undefined): string {
  const gives = weeks === undefined ? 'many weeks' : count(weeks, 'week')
  return kept.length ? `Letting go of ${kept[0]} gives ${gives}.` : `Without ${courses[0]}: ${gives}.`
}
