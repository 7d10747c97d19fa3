/** English for findings, refusals and rules: made here and nowhere else. */
import type { OfferingPattern, Season, StudyLevel } from '#core/catalog'
import type { Fault } from '#core/checking'
import type { Aligned, ChangeFault, Obstacle, PlanDifference, TermResult } from '#core/route'
import type { Finish } from '#core/chain'
import type { Wish } from '#core/find'
import type {
  ConditionResult,
  Enrolment,
  Forecast,
  NeedResult,
  NeedState,
  Refused,
  Serving
} from '#core/degree'
import type { Finding, Refusal, RouteChange } from '#core/findings'
import type { Mode, OptionClash, Repair, Section, ShortWay, SincePicked } from '#core/week'
import { isoDate } from '#core/time'
import { isBranch, type Rule, type RuleLeaf, type Standing } from '#core/requisites'
import type { Filled, Proposed } from '#shared/route/filling'
import type { KeepFree } from './picture'
import { clockTime, DAY_NAMES, dayMonth, hours, instantText, LONG_DAY_NAMES } from './when'

export const STANDING_WORDS: Record<Standing, string> = {
  freshman: 'first year',
  sophomore: 'second year',
  junior: 'third year',
  senior: 'fourth year',
  graduate: 'graduate'
}

export const MODE_WORDS: Record<Mode, string> = {
  inPerson: 'in person',
  onlineHours: 'online, at set hours',
  online: 'online, any time',
  mixed: 'partly online'
}

export const LEVEL_WORDS: Record<StudyLevel, string> = {
  undergraduate: 'undergraduate',
  graduate: 'graduate'
}

export const SEASON_WORDS: Record<Season, string> = {
  autumn: 'autumn',
  spring: 'spring',
  summer: 'summer'
}

export const KIND_WORDS: Record<Section['kind'], string> = {
  lecture: 'lecture',
  lab: 'lab',
  tutorial: 'tutorial',
  seminar: 'seminar',
  studio: 'studio'
}

/** `4 credits`, `1 credit`, `2.5 credits` */
export function creditsText(credits: number): string {
  return `${credits} ${credits === 1 ? 'credit' : 'credits'}`
}

/** `Autumn and spring, odd years` */
export function patternText({ seasons, years }: OfferingPattern): string {
  if (!seasons.length) return 'not planned to run again'
  const list = seasons.map((season) => SEASON_WORDS[season])
  const text = list.length < 2 ? list[0]! : `${list.slice(0, -1).join(', ')} and ${list.at(-1)}`
  return `${text}${years === 'every' ? '' : `, ${years} years`}`
}

/** `60.00` */
export const moneyText = (amount: number): string => amount.toFixed(2)

/** `2 findings`, `1 finding` */
export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`
}

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

const part = (section: Section) =>
  section.kind === 'lecture' ? section.course : `${section.course} ${KIND_WORDS[section.kind]}`

/** `meets SOIL 220 lab Thu 2:45 pm, 14 dates`: what an option clashes with, and on how many dates. */
export function clashText({ with: other, clash }: OptionClash): string {
  const days = clash.days.map((day) => DAY_NAMES[day]).join(' ')
  const when = clash.dates === 1 ? `only on ${dayMonth(isoDate(clash.first))}` : `${clash.dates} dates`
  return `meets ${part(other)} ${days} ${clockTime(clash.start)}, ${when}`
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

/** How a requirement stands, while nothing is needed. */
export const NEED_STATES: Record<NeedState, string> = {
  met: 'met',
  gradesDue: 'grades due',
  underWay: 'under way',
  registered: 'registered',
  mapped: 'mapped',
  needed: 'needed'
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

export function leafText(leaf: RuleLeaf): string {
  switch (leaf.kind) {
    case 'course':
      if (leaf.sameTerm) return `${leaf.course} in the same term or before`
      return leaf.leastGrade ? `${leaf.course} with ${leaf.leastGrade} or better` : leaf.course
    case 'test':
      return `a ${leaf.test.toLowerCase()} test score of ${leaf.least}`
    case 'standing':
      return leaf.standing === 'graduate' ? 'graduate standing' : `${STANDING_WORDS[leaf.standing]} standing`
    case 'credits':
      return `${leaf.credits} credits earned by then`
    case 'program':
      return `program ${leaf.program}`
    case 'permission':
      return 'permission of the department'
  }
}

/** `A, B and C`, `A or B`; what is a list within a list stands in brackets. */
export function ruleText(rule: Rule): string {
  if (!isBranch(rule)) return leafText(rule)
  const words = rule.of.map((part) => (isBranch(part) ? `(${ruleText(part)})` : leafText(part)))
  return `${words.slice(0, -1).join(', ')} ${rule.kind === 'all' ? 'and' : 'or'} ${words.at(-1)}`
}

export function leavesText(leaves: readonly RuleLeaf[], joint = 'and'): string {
  const words = leaves.map(leafText)
  return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} ${joint} ${words.at(-1)}`
}

const AWAY_WORDS = { exchange: 'an exchange', leave: 'a leave' } as const

type TermNames = (code: string) => string

/** A finding as one sentence without its course: `needs STAT 330 before it, and ...`. */
export function findingText(finding: Finding, termName: TermNames): string {
  switch (finding.code) {
    case 'prerequisite':
      return `needs ${ruleText(finding.missing)} before it.`
    case 'corequisite':
      return `needs ${ruleText(finding.missing)}.`
    case 'notOffered':
      return finding.known === 'sections'
        ? `has no section in ${termName(finding.term)}.`
        : `does not usually run in ${termName(finding.term)}.`
    case 'alreadyThere':
      return 'is done, under way or planned already, and counts once.'
    case 'outside':
      return `would count toward nothing: ${REFUSED[finding.why]}.`
    case 'away':
      return `stands in ${termName(finding.term)}, which is marked as ${AWAY_WORDS[finding.why]}.`
    case 'begun':
      return `is planned for ${termName(finding.term)}, to which nothing can be added any more.`
    case 'notForYou':
      return `has sections in ${termName(finding.term)}, none of which is for you.`
    case 'permissionFirst':
      return `needs a permission for ${termName(finding.term)} first, from the instructor or the department.`
    case 'noWeek':
      return noWeekText(finding)
    case 'load':
      return `holds ${creditsText(finding.credits)}, ${finding.credits - finding.most} over the limit of ${finding.most}.`
    case 'lightLoad':
      return `holds ${creditsText(finding.credits)}, fewer than the ${finding.least} you want at least.`
    case 'hours':
      return `asks for ${finding.hours} hours of study a week; you have ${finding.most}.`
    case 'needLeft':
      return `is when you want to finish; ${creditsText(finding.credits)} still have no place.`
    case 'late':
      return `is when this route finishes; you want to finish by ${termName(finding.target)}.`
  }
}

/** `leaves no week: A and B clash whatever the section.`: why no week of a term fits. */
function noWeekText({
  courses,
  hours: kept
}: {
  courses: readonly string[]
  hours: readonly string[]
}): string {
  const all = [...courses, ...kept.map((name) => `free time ${name}`)]
  if (all.length === 1) return `leaves no week: ${all[0]} has no section without a clash of its own.`
  return `leaves no week that fits: ${all.slice(0, -1).join(', ')} and ${all.at(-1)} cannot hold together, whatever the section.`
}

/** What a target for the GPA asks of the credits still to come. */
export function forecastText(forecast: Forecast, target: number, remaining: number): string {
  switch (forecast.kind) {
    case 'reached':
      return `${target.toFixed(2)} is kept whatever the grades to come.`
    case 'possible':
      return `It takes an average of ${forecast.least.toFixed(2)} over the ${creditsText(remaining)} still to come.`
    case 'outOfReach':
      return `Out of reach: with the best grades in the ${creditsText(remaining)} still to come it would be ${forecast.best.toFixed(2)}.`
    case 'nothingLeft':
      return 'No credits of the program are still to come.'
  }
}

export const ENROLMENT_WORDS: Record<Enrolment, string> = {
  fullTime: 'full time',
  threeQuarterTime: 'three-quarter time',
  halfTime: 'half time',
  lessThanHalfTime: 'less than half time'
}

/** What a condition asks for, and how far it is: `24 of 30 credits, 6 more planned`. */
export function conditionText({ spec, amounts, unknown, value }: ConditionResult): string {
  switch (spec.asks) {
    case 'credits': {
      const { earned, underWay, registered, planned } = amounts!
      const ahead = underWay + registered + planned
      const open = unknown ? `; of ${creditsText(unknown)} ahead it is not known yet` : ''
      return `${earned} earned${ahead ? ` and ${ahead} ahead` : ''}, of ${creditsText(spec.least)}${open}`
    }
    case 'average':
      return value === undefined ? 'no graded course yet' : `${value.toFixed(2)} now`
    case 'test':
      return value === undefined ? 'no score on record' : `${value} on record`
    case 'milestone':
      return spec.note ?? 'recorded by the registrar'
  }
}

/** What makes a finish the earliest one. */
export function finishText(finish: Finish, termName: TermNames): string {
  switch (finish.kind) {
    case 'done':
      return 'Everything is earned or under way.'
    case 'credits':
      return `The ${creditsText(finish.credits)} still to take fill the terms until ${termName(finish.term.code)}.`
    case 'chain': {
      const links = finish.chain.map(
        (link) => `${link.course} in ${termName(link.term.code)} at the earliest`
      )
      return links.length
        ? `“${finish.need.need.title}” waits for ${links.join(', then ')}.`
        : `“${finish.need.need.title}” cannot be met before ${termName(finish.term.code)}.`
    }
    case 'never':
      return finish.need
        ? `“${finish.need.need.title}” cannot be met within the terms that are known.`
        : 'The credits still to take do not fit into the terms that are known.'
  }
}

const orList = (titles: readonly string[]) =>
  titles.length < 2 ? (titles[0] ?? '') : `${titles.slice(0, -1).join(', ')} or ${titles.at(-1)}`

/** `counts for A and B`, `counts for either A or B`, `repeats STAT 110, which you have`: what a course would do. */
export function servingText(serving: Serving): string {
  const titles = (needs: readonly NeedResult[]) => [...new Set(needs.map((one) => one.need.title))]
  switch (serving.kind) {
    case 'counts': {
      const parts = serving.places.map((place) => {
        const all = titles(place)
        return all.length > 1 ? `either ${orList(all)}` : all[0]!
      })
      return `counts for ${parts.join(' and ')}`
    }
    case 'counted':
      return serving.needs.length
        ? `already counts for ${titles(serving.needs).join(' and ')}`
        : 'is there already, and counts for nothing'
    case 'repeats':
      return `repeats ${serving.by.course}, which you have${serving.needs.length ? ` for ${titles(serving.needs).join(' and ')}` : ''}`
    case 'ifMoved':
      return `would count for ${serving.need.need.title} only if ${serving.moves.course} moves to ${serving.to.need.title}`
    case 'full':
      return `meets nothing that is still open: ${titles(serving.needs).join(', ')} is full`
    case 'nothing':
      return 'counts for none of your requirements'
  }
}

/** What answers are asked over, how they are compared, and what is proved of them; docs/answers.md says it in full. */
export const HOW_ANSWERED = {
  reading: {
    title: 'How this is read',
    over: 'Of all ways to count courses, attempts and branches this is the best one. Ways are compared by these numbers in turn; the first that differs decides, and fewer is better:',
    order: [
      'needs that no course left could complete',
      'needs open with everything on the record and the route; then free choice that is not full',
      'needs open without what is planned, without what is registered, by what is earned alone',
      'conditions on what counts that are not met',
      'credits in needs beyond what they ask',
      'then the order in which the program names branches and needs'
    ],
    proved:
      'It is proved that no way is better, unless the page says otherwise. When courses are offered, and what a term holds, is looked at when the route is filled.'
  },
  finish: {
    title: 'What is proved',
    over: 'Every course left, every branch, every term open to planning and every way to count is looked at. In order:',
    order: [
      'everything needed is met, and the last term is the earliest there is',
      'then the fewest terms with too many hours of study or too few credits',
      'then the courses that suit best',
      'then what others wait for early, and loads that are even'
    ],
    proved:
      '“No way is earlier” is proved: for each earlier term it was shown that nothing completes the degree by it. The rest is proved too, each in its turn, unless it says what was not settled: no fewer such terms, no courses that suit better by more than two in a hundred, no better laying of them by more than one in a thousand. Conditions such as averages are left out.'
  },
  weeks: {
    title: 'How weeks are compared',
    over: 'One option of each course, full sections among them unless seats are asked for. No two classes share a minute of a date. Weeks are compared by the wishes in turn; the first that differs decides.',
    order: [
      'a weekday counts as it is on its worst date, so what the halves of a term have does not add up',
      'a class on a single Saturday makes Saturday a day with classes'
    ],
    proved:
      '“Proved” means that no week is better than the last one shown, and that all better ones are shown.'
  }
} as const

/** Why a course counts nowhere. */
export const REFUSED: Record<Refused, string> = {
  notAccepted: 'no requirement accepts it',
  gradeTooLow: 'the grade is too low where it would count',
  full: 'what accepts it is full',
  otherKind: 'what is still missing there has to be of another kind',
  limited: 'a limit of the program keeps it out',
  sharing: 'it counts in another program already, and no more may be shared',
  again: 'one that it repeats, or that excludes it, gives the credit'
}

/** A fault of a catalog or a program as one sentence, without its place. */
export function faultText(fault: Fault): string {
  switch (fault.code) {
    case 'rule':
      return `${fault.problem} at position ${fault.at + 1} of "${fault.rule}"`
    case 'program':
    case 'circle':
      return fault.problem
    case 'unknownCourse':
      return `the catalog has no course ${fault.course}${fault.rule ? `, named in "${fault.rule}"` : ''}`
    case 'courseTwice':
      return `${fault.course} is there twice`
    case 'creditRange':
      return `${fault.most} credits at most are fewer than ${fault.least}`
    case 'outOfReach':
      return `asks for ${fault.asks} ${fault.measure}, and "${fault.rule}" can give ${fault.most} at most`
    case 'notOffered':
      return `no course of "${fault.rule}" is offered any more`
  }
}

/** What a finding is about, to stand before its sentence. */
export function findingSubject(finding: Finding, termName: TermNames): string {
  return 'course' in finding ? `${finding.course} in ${termName(finding.term)}` : termName(finding.term)
}

export function changeText(change: RouteChange, termName: TermNames): string {
  switch (change.kind) {
    case 'add':
      return `Add ${change.planned.course} to ${termName(change.planned.term)}`
    case 'remove':
      return `Take ${change.planned.course} off the route`
    case 'move':
      return `Move ${change.course} to ${termName(change.to)}`
    case 'edit': {
      const { from, to, course } = change
      if (from.locked !== to.locked) return `${to.locked ? 'Lock' : 'Unlock'} ${course}`
      return to.note === from.note ? `Set ${course} to ${creditsText(to.credits)}` : `Note on ${course}`
    }
    case 'several': {
      const [first, second] = change.changes
      if (change.changes.length === 2 && first!.kind === 'remove' && second!.kind === 'add')
        return second!.planned.term === first!.planned.term
          ? `Take ${second!.planned.course} instead of ${first!.planned.course}`
          : `Take ${second!.planned.course} in ${termName(second!.planned.term)} instead of ${first!.planned.course}`
      return change.changes.length === 1
        ? changeText(first!, termName)
        : `${count(change.changes.length, 'change')} at once`
    }
  }
}

export const CHANGE_FAULTS: Record<ChangeFault, string> = {
  alreadyInTerm: 'This course is in that term already.',
  notInTerm: 'This course is not in that term any more. Reload to see the route as it is.',
  termClosed: 'Nothing can be added to that term any more.',
  nothingChanged: 'It says that already.'
}

/** When in its term a section runs, where that is not all of it. */
export const HALF_WORDS: Record<Section['half'], string> = {
  full: '',
  first: 'first half',
  second: 'second half',
  other: 'dates of its own'
}

/** A refusal as one sentence: what, why, and who can settle it. */
export function refusalText(refusal: Refusal, zone: string): string {
  switch (refusal.code) {
    case 'notOpen':
      return refusal.opens === null
        ? 'No opening of this term is for you. The registrar decides on openings.'
        : `Registration opens for you on ${instantText(refusal.opens, zone)}.`
    case 'closed':
      return `Adding ended on ${instantText(refusal.since, zone)}. Only the registrar can register you now.`
    case 'hold':
      return `Hold: ${refusal.title.toLowerCase()}${refusal.amount === null ? '' : ` ${refusal.amount.toFixed(2)}`}. Only ${refusal.office} can lift it.`
    case 'signOff':
      return 'Your advisor has not signed off this term yet.'
    case 'outsideSignOff':
      return 'It is not among the courses your advisor signed off, and this term asks for that.'
    case 'cancelled':
      return `Section ${refusal.section} was cancelled. Pick another one.`
    case 'officeOnly':
      return `Only an office places students in ${refusal.section}.`
    case 'componentMissing':
      return `A ${KIND_WORDS[refusal.kind]} belongs to it and none is picked.`
    case 'alreadyRegistered':
      return 'You are registered for this course already.'
    case 'alreadyEarned':
      return refusal.grade === 'TR'
        ? 'You have credit for this course already.'
        : `You have earned this course already, with ${refusal.grade}.`
    case 'alreadyTaken':
      return refusal.held
        ? `You hold a seat of this course in ${refusal.name} already.`
        : `You are taking this course in ${refusal.name} already; it counts once.`
    case 'full':
      return `The ${KIND_WORDS[refusal.kind]} is full: ${refusal.capacity} of ${refusal.capacity} seats taken, ${refusal.waiting} in line.`
    case 'placed':
      return 'An office placed you in it; only the office can move you.'
    case 'reserved':
      return `The ${refusal.left === 1 ? 'last seat' : `${refusal.left} seats left`} of the ${KIND_WORDS[refusal.kind]} ${refusal.left === 1 ? 'is' : 'are'} kept for others.`
    case 'notForYou': {
      const who = [
        ...refusal.programs.map((p) => `program ${p}`),
        ...refusal.standings.map((s) => `${STANDING_WORDS[s]} students`)
      ]
      return `This section is for ${who.join(' and ')} only.`
    }
    case 'permission':
      return 'It needs the permission of the instructor or the department.'
    case 'prerequisite':
      return `It needs ${ruleText(refusal.missing)} before it.`
    case 'corequisite':
      return `It needs ${ruleText(refusal.missing)}.`
    case 'clash': {
      const days = refusal.clash.days.map((day) => DAY_NAMES[day]).join(' ')
      return `It clashes with ${refusal.with} on ${days} at ${clockTime(refusal.clash.start)}.`
    }
    case 'load':
      return `With it you would hold ${refusal.credits} credits; your limit is ${refusal.most}.`
    case 'together':
      return `It goes through only together with ${refusal.with}, which did not.`
  }
}

/** What to do about a refusal, in a few words; undefined when the sentence says it all. */
export function wayOut(refusal: Refusal): string | undefined {
  switch (refusal.code) {
    case 'full':
    case 'reserved':
    case 'clash':
    case 'cancelled':
    case 'componentMissing':
    case 'notForYou':
    case 'officeOnly':
      return 'Pick another section'
    case 'prerequisite':
    case 'corequisite':
    case 'load':
    case 'alreadyEarned':
    case 'alreadyTaken':
      return 'Change the route'
    default:
      return undefined
  }
}

/** Why a proposed course is there, and there in that term. */
export function becauseText({
  needs,
  before,
  because
}: Pick<Proposed, 'needs' | 'before' | 'because'>): string {
  const why = needs.length
    ? `for ${needs.join(' and ')}`
    : before.length
      ? `because ${before.join(', ')} needs it`
      : 'to fill up'
  const also = needs.length && before.length ? `, before ${before.join(', ')}` : ''
  return `${why}${also}; ${BECAUSE[because]}`
}
const BECAUSE: Record<Proposed['because'], string> = {
  first: 'the first term in which it may stand',
  full: 'the terms before are full',
  suggested: 'as the program suggests',
  even: 'here the terms are more even',
  later: 'an earlier term would do as well'
}

/** What is left of a suggested sequence, in a sentence or two; `placed` courses of it are proposed. */
export function suggestedText(
  program: SequencedProgram,
  { from, open, left }: Pick<Aligned, 'from' | 'open' | 'left'>,
  placed: number
): string {
  if (!placed && !open.length && !left.length)
    return `All of what ${program.shortTitle} suggests is there, or others stand for it.`
  const chosen = open.length ? `, and ${count(open.length, 'place')} to choose a course for` : ''
  const rest = left.map(
    ({ course, why }) =>
      `${course}: ${why ? obstacleText(why.obstacle, why.term.name) : 'No term has room for it.'}`
  )
  const not = rest.length ? ` Not placed: ${rest.join(' ')}` : ''
  const where = from < program.suggested.length ? ` from its term ${from + 1} on` : ' and was left out'
  return `What ${program.shortTitle} suggests${where}: ${count(placed, 'course')}${chosen}.${not}`
}
interface SequencedProgram {
  shortTitle: string
  suggested: readonly unknown[]
}

/** `2 of 9 credits of “Arts or music”`: what of a need stays open, in its own measure. */
function missingText({ need, missing, lacks }: NeedResult): string {
  const title = `“${need.title}”`
  if (missing > 0)
    return need.measure === 'courses'
      ? `${missing} of ${count(need.amount, 'course')} of ${title}`
      : `${missing} of ${creditsText(need.amount)} of ${title}`
  if (lacks.subjects > 0) return `${count(lacks.subjects, 'further subject')} of ${title}`
  return `a part of ${title}`
}

/** Needs that cannot be met together, named one by one up to so many. */
const CONFLICT_NAMED = 4

/** How filling ended, as the audit says it once all of it is taken; `load` credits a term were the most. */
export function endedText(proposal: Filled | undefined, load?: number): string {
  if (!proposal) return 'Nothing was found within the time; that does not mean that there is nothing.'
  const { finish, proved, bound, left, conflict } = proposal
  if (finish) {
    const most = load === undefined ? '' : ` with at most ${load} credits a term`
    const unsettled = unsettledText(proposal.better)
    return proved
      ? `Finishes in ${finish.name}; no way is earlier${most}.${unsettled}`
      : `Finishes in ${finish.name}; whether an earlier way exists${bound ? `, ${bound.name} at best,` : ''} was not settled.${unsettled}`
  }
  const open = `Still open: ${left.map(missingText).join(', ')}.`
  if (!conflict.length) return `Not everything found a place. ${open}`
  if (conflict.length > CONFLICT_NAMED) return `These terms do not hold all that is needed. ${open}`
  const titles = conflict.map((title) => `“${title}”`)
  const why =
    titles.length > 1
      ? `${titles.join(' and ')} cannot be met together within these terms.`
      : `${titles.join('')} cannot be met within these terms.`
  return `${why} ${open}`
}

/** What was not settled of a filling beside its finish: a sentence, or nothing. */
function unsettledText(better: Filled['better']): string {
  if (!better) return ''
  const whether = [
    better.findings ? [] : 'fewer terms could have too many hours or too few credits',
    better.courses ? [] : 'other courses would suit better',
    better.laying ? [] : 'the courses could be laid better'
  ].flat()
  if (!whether.length) return ''
  return ` Not settled: whether ${whether.join(', whether ')}.`
}

/** `15 of 16 cr earned · GPA 3.21`: what a term came to. */
export function resultText({ earned, attempted, average }: TermResult): string {
  const credits = earned === attempted ? `${earned} cr earned` : `${earned} of ${attempted} cr earned`
  return average === undefined ? credits : `${credits} · GPA ${average.toFixed(2)}`
}

/** Why a course may not go into a term, in the few words that fit a cell. */
export function obstacleText(obstacle: Obstacle, termName: string): string {
  switch (obstacle.code) {
    case 'past':
      return `Nothing can be added to ${termName} any more.`
    case 'away':
      return `${termName} is marked as ${AWAY_WORDS[obstacle.why]}.`
    case 'notOffered':
      return obstacle.known === 'sections'
        ? `No section in ${termName}.`
        : `Does not usually run in ${termName}.`
    case 'prerequisite':
      return `Needs ${ruleText(obstacle.missing)} before ${termName}.`
    case 'corequisite':
      return `Needs ${ruleText(obstacle.missing)}.`
    case 'notForYou':
      return `No section of it in ${termName} is for you.`
    case 'permissionFirst':
      return `Needs a permission for ${termName} first.`
  }
}

/** What changed from one plan to another, change by change; empty where nothing did. */
export function changesText(
  { added, removed, moved }: PlanDifference,
  shortTerm: (code: string) => string
): string {
  return [
    ...added.map((p) => `${p.course} added to ${shortTerm(p.term)}`),
    ...removed.map((p) => `${p.course} taken out of ${shortTerm(p.term)}`),
    ...moved.map((m) => `${m.course} moved from ${shortTerm(m.from)} to ${shortTerm(m.to)}`)
  ].join('; ')
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
