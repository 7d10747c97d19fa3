/** What is said of refusals, and the way out of each. */
import type { Refusal } from '#core/findings'
import type { PermissionKind } from '#core/week'
import { conditionText } from '#shared/advising/texts'
import { ruleText } from '#shared/catalog/texts'
import { clockTime, DAY_NAMES, deadlineText, instantText } from '#shared/when'
import { capital, KIND_WORDS, STANDING_WORDS } from '#shared/words'

type TextOf = {
  readonly [Code in Refusal['code']]: (refusal: Extract<Refusal, { code: Code }>, zone: string) => string
}

const TEXTS: TextOf = {
  notOpen: (refusal, zone) =>
    refusal.opens === null
      ? 'No opening of this term is for you. The registrar decides on openings.'
      : `Registration opens for you on ${instantText(refusal.opens, zone)}.`,
  closed: (refusal, zone) =>
    `Adding was possible until ${deadlineText(refusal.since, zone)}. Only the registrar can register you now.`,
  sessionClosed: (refusal, zone) =>
    `Its part of the term could be added until ${deadlineText(refusal.since, zone)}.`,
  hold: (refusal) =>
    `Hold: ${refusal.title.toLowerCase()}${refusal.amount === null ? '' : ` ${refusal.amount.toFixed(2)}`}. Only ${refusal.office} can lift it.`,
  signOff: (refusal, zone) => {
    if (refusal.changed)
      return 'This term was changed after it was signed off, and it has to be signed off as it is. Ask for a review.'
    return refusal.ended === null
      ? 'Your advisor has not signed off this term yet.'
      : `The sign-off of this term stood until ${deadlineText(refusal.ended, zone)}. Ask for a review.`
  },
  notAgreed: () => 'You have not accepted the terms of registration yet.',
  outsideSignOff: () => 'It is not among the courses your advisor signed off, and this term asks for that.',
  condition: (refusal) =>
    `Your advisor signed this term off on a condition: ${conditionText(refusal.condition)}.`,
  conditionCredits: (refusal) =>
    `With it you would hold ${refusal.credits} credits; your advisor signed off up to ${refusal.most}.`,
  cancelled: (refusal) => `Section ${refusal.section} was cancelled. Pick another one.`,
  officeOnly: (refusal) => `Only an office places students in ${refusal.section}.`,
  componentMissing: (refusal) => `A ${KIND_WORDS[refusal.kind]} belongs to it and none is picked.`,
  alreadyRegistered: () => 'You are registered for this course already.',
  alreadyEarned: (refusal) =>
    refusal.grade === 'TR'
      ? 'You have credit for this course already.'
      : `You have earned this course already, with ${refusal.grade}.${refusal.below === null ? '' : ` It is taken again only where the grade is below ${refusal.below}.`}`,
  alreadyTaken: (refusal) =>
    refusal.held
      ? `You hold a seat of this course in ${refusal.name} already.`
      : `You are taking this course in ${refusal.name} already; it counts once.`,
  full: (refusal) =>
    `The ${KIND_WORDS[refusal.kind]} is full: ${refusal.capacity} of ${refusal.capacity} seats taken, ${refusal.waiting} in line.`,
  placed: () => 'An office placed you in it; only the office can move you.',
  reserved: (refusal) =>
    `The ${refusal.left === 1 ? 'last seat' : `${refusal.left} seats left`} of the ${KIND_WORDS[refusal.kind]} ${refusal.left === 1 ? 'is' : 'are'} kept for others.`,
  notForYou: (refusal) => {
    const who = [
      ...refusal.programs.map((p) => `program ${p}`),
      ...refusal.standings.map((s) => `${STANDING_WORDS[s]} students`)
    ]
    return `This section is for ${who.join(' and ')} only.`
  },
  permission: () => 'It needs the permission of the instructor or the department.',
  prerequisite: (refusal) => `It needs ${ruleText(refusal.missing)} before it.`,
  corequisite: (refusal) => `It needs ${ruleText(refusal.missing)}.`,
  clash: (refusal) => {
    const days = refusal.clash.days.map((day) => DAY_NAMES[day]).join(' ')
    return `It clashes with ${refusal.with} on ${days} at ${clockTime(refusal.clash.start)}.`
  },
  load: (refusal) => `With it you would hold ${refusal.credits} credits; your limit is ${refusal.most}.`,
  together: (refusal) => `It goes through only together with ${refusal.with}.`,
  notHeld: () => 'You hold no seat of this course.',
  dropEnded: (refusal, zone) =>
    `Dropping was possible until ${deadlineText(refusal.since, zone)}. Only the registrar can take you out now.`,
  neededBy: (refusal) =>
    `${refusal.course}, which you keep, asks for it in the same term. Drop both, or neither.`,
  notGivenUp: (refusal, zone) =>
    `${refusal.course} was to be given up for it and stays yours: ${notGivenUpText(refusal.why, zone)}`,
  lineClosed: (refusal, zone) => `Lines of this term were open until ${deadlineText(refusal.since, zone)}.`,
  lineFull: (refusal) => `Its line is full: ${refusal.places} of ${refusal.places} places taken.`,
  inLine: () => 'You stand in a line of this course already.',
  seatLeft: () => 'There is a seat left, so there is no line.',
  notInLine: () => 'You stand in no line of this course.',
  offerEnded: (refusal, zone) => `The offer ended on ${instantText(refusal.until, zone)}.`
}

/** A refusal as one sentence: what, why, and who can settle it. */
export function refusalText(refusal: Refusal, zone: string): string {
  const text = TEXTS[refusal.code] as (refusal: Refusal, zone: string) => string
  return text(refusal, zone)
}

/** Why a seat is not given up, as the end of a sentence. */
function notGivenUpText(why: Refusal, zone: string): string {
  switch (why.code) {
    case 'placed':
      return 'an office placed you there, and only the office can move you.'
    case 'dropEnded':
      return `dropping was possible until ${deadlineText(why.since, zone)}.`
    case 'neededBy':
      return `${why.course}, which you keep, asks for it in the same term.`
    default:
      return refusalText(why, zone)
  }
}

const SET_ASIDE: Record<PermissionKind, string> = {
  prerequisite: 'its prerequisite',
  corequisite: 'what has to be taken beside it',
  clash: 'its clash',
  full: 'that it is full: a seat is added for you',
  reserved: 'that its last seats are kept for others',
  restriction: 'for whom it is',
  load: 'the limit of credits',
  consent: 'that it needs consent',
  late: 'that its dates have passed'
}

/** What permissions set aside for a line. */
export function setAsideText(kinds: readonly PermissionKind[]): string {
  return `A permission sets aside ${kinds.map((kind) => SET_ASIDE[kind]).join(' and ')}.`
}

/** What a run is about to do, by the number of lines; undefined where it would do nothing. */
export function runTitleText(
  lines: Record<'drop' | 'register' | 'exchange' | 'wait', number>
): string | undefined {
  const parts = [
    ...(lines.drop ? [`drop ${lines.drop}`] : []),
    ...(lines.register ? [`register ${lines.register}`] : []),
    ...(lines.exchange ? [`exchange ${lines.exchange}`] : []),
    ...(lines.wait ? [`stand in line for ${lines.wait}`] : [])
  ].join(', ')
  return parts ? capital(parts) : undefined
}

/** What to do about a refusal, in a few words; undefined when the sentence says it all. */
export function wayOut(refusal: Refusal): string | undefined {
  switch (refusal.code) {
    case 'full':
    case 'reserved':
    case 'clash':
    case 'cancelled':
    case 'sessionClosed':
    case 'componentMissing':
    case 'notForYou':
    case 'officeOnly':
    case 'lineFull':
    case 'lineClosed':
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
