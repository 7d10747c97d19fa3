/** Requests as sentences: the rule that would be set aside, and what that would come to. */
import type { Refusal } from '#core/findings'
import { LONG_DAY_NAMES } from '#shared/when'
import { areAlike, type DeskRequest } from './asking'

type Asked = Pick<DeskRequest, 'kind' | 'against' | 'course' | 'number' | 'need' | 'seats' | 'onRecord'>

/** `Let ... into ENDA 325-02` and `although all its 30 seats are taken`; the names stand between the first two. */
export interface RuleSentence {
  before: string
  after: string
  although: string
}

export function ruleSentence({ kind, against, course, number, need, seats, onRecord }: Asked): RuleSentence {
  const section = `${course}-${number}`
  const into = { before: 'Let', after: `into ${section}` }
  switch (kind) {
    case 'prerequisite':
      return { ...into, although: 'although its prerequisite is not met' }
    case 'corequisite':
      return { ...into, although: 'although what it asks for beside it is missing' }
    case 'clash':
      return { ...into, although: `although ${clashText(against, 'it overlaps with another course')}` }
    case 'full':
      return { ...into, although: `although all its ${seats?.capacity ?? ''} seats are taken` }
    case 'reserved':
      return { ...into, although: 'although the seats that are left are kept for others' }
    case 'restriction':
      return { ...into, although: 'although it is for others' }
    case 'consent':
      return { ...into, although: 'which is only with consent' }
    case 'late':
      return against?.code === 'dropEnded'
        ? { before: 'Let', after: `drop ${section}`, although: 'although its last day is over' }
        : { ...into, although: 'although adding has ended' }
    case 'load': {
      const limits = against?.code === 'load' || against?.code === 'conditionCredits' ? against : undefined
      return {
        before: 'Let',
        after: limits ? `carry ${limits.credits} credits` : `take ${section}`,
        although: limits ? `although the limit is ${limits.most}` : 'although it is more than the limit'
      }
    }
    case 'waiver':
      return { before: 'Let', after: `take ${course}`, although: 'without its prerequisite' }
    case 'program':
      return {
        before: 'The program of',
        after: `on record is ${onRecord?.title}, catalog ${onRecord?.catalogYear}`,
        although: 'which they say is wrong'
      }
    case 'need':
      return {
        before: 'Excuse',
        after: `from “${need?.title}”`,
        although: `although ${need?.program} asks for it`
      }
    case 'substitution':
      return {
        before: `Count ${course} for`,
        after: `as “${need?.title}”`,
        although: 'although it is another course'
      }
  }
}

function clashText(against: Refusal | null, otherwise: string): string {
  if (against?.code !== 'clash') return otherwise
  const days = against.clash.days.map((day) => `${LONG_DAY_NAMES[day]}s`).join(' and ')
  return `it overlaps with ${against.with} on ${days}`
}

/** What setting the rule aside would do, in a line; undefined where the rule says it all. */
export function wouldDo({ kind, against, seats }: Asked, many: number): string | undefined {
  if (kind === 'full' && seats) {
    const after = seats.taken + many
    const passed = seats.waiting ? `; ${seats.waiting} in line are passed over` : ''
    return `${after} of ${seats.capacity} seats: capacity becomes ${Math.max(seats.capacity, after)}${passed}`
  }
  if (kind === 'reserved' && seats)
    return `${seats.capacity - seats.taken} left and kept for others; ${seats.capacity - seats.taken - many} after it`
  if (against?.code === 'load' || against?.code === 'conditionCredits')
    return `${against.credits} of ${against.most} credits`
  if (against?.code === 'clash') {
    const { minutes, days, dates } = against.clash
    return `${minutes} minutes lost each ${days.map((day) => LONG_DAY_NAMES[day]).join(' and ')}, on ${dates} dates`
  }
  return undefined
}

/** Those that are alike together, in the order in which the first of each was asked. */
export function inGroups(requests: readonly DeskRequest[]): DeskRequest[][] {
  const groups: DeskRequest[][] = []
  for (const one of requests) {
    const known = groups.find(([first]) => areAlike(first!, one))
    if (known) known.push(one)
    else groups.push([one])
  }
  return groups
}
