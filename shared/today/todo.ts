/**
 * What a student has to do next, in order of consequence: worked out from the record, the route, the sections on
 * offer and the campus time, so that it holds on every day of the year.
 */
import { isAlive, type TermStanding } from '#core/calendar'
import type { Finding } from '#core/findings'
import { GENERAL_REFUSALS, pickedOptions, rehearse } from '#core/registration'
import { dayNumber, type Instant } from '#core/time'
import { changesSince, type Section } from '#core/week'
import type { StudentRecord } from '#shared/record/responses'
import type { TermView } from '#shared/catalog/responses'
import { goingWith, termsAlive, type Reading } from '#shared/reading'
import type { Shelf } from '#shared/catalog/shelf'
import { registrationFacts } from '#shared/registration/registering'
import { hasChanged, sinceSignOff, sinceText } from '#shared/advising/signOff'
import { termWeek } from '#shared/week/termWeek'
import { ago, dayMonth, shortInstant, timeLeft } from '#shared/when'
import { count } from '#shared/words'
import { findingSubject, findingText } from '#shared/route/texts'
import { refusalText } from '#shared/registration/texts'
import { sectionHours, SINCE_WORDS, sectionName } from '#shared/week/texts'

export type Urgency = 'stops' | 'attention' | 'plain' | 'later'

export interface Todo {
  id: string
  urgency: Urgency
  title: string
  text: string
  when: string
  /** `to` is a place of the student's, or a spot of the page itself. */
  action?: { label: string; to: 'degree' | 'route' | 'week' | 'register' | '#program' }
}

export interface TodoQuestion {
  picture: StudentRecord
  reading: Reading
  shelf: Shelf
  /** The term at work. */
  work: TermStanding<TermView> | undefined
  now: Instant
}

const ORDER: readonly Urgency[] = ['stops', 'attention', 'plain', 'later']
/** Days before payment is due from which it is told. */
const PAYMENT_SOON = 14

export function thingsToDo(question: TodoQuestion): Todo[] {
  const { reading } = question
  const things = [
    ...ofHolds(question),
    ...ofPrograms(question),
    ...termsAlive(reading).flatMap((one) => ofTerm(question, one)),
    ...ofLines(question),
    ...ofFindings(question)
  ]
  return things.sort((a, b) => ORDER.indexOf(a.urgency) - ORDER.indexOf(b.urgency))
}

/** What is said where there is nothing to do. */
export function nothingToDo({ work }: Pick<TodoQuestion, 'work'>): string {
  if (!work?.taken || work.unsettled || work.state === 'gradesDue') return 'Nothing waits for you.'
  return `Nothing waits for you. You hold a seat in every course planned for ${work.term.name}.`
}

const shortName = ({ name }: { name: string }) => name.replace(/ \d\d(\d\d)$/, ' $1')

function ofHolds({ picture, work, shelf }: TodoQuestion): Todo[] {
  return picture.holds.map((hold): Todo => {
    const amount = hold.amount === null ? '' : `, ${hold.amount.toFixed(2)}`
    const stops = hold.stopsRegistration
    return {
      id: `hold ${hold.title}`,
      urgency: stops ? 'stops' : 'later',
      title: `Hold: ${hold.title.toLowerCase()}${amount}`,
      text: `${stops ? 'Stops you from registering.' : 'Does not stop registration.'} Only ${hold.office} can lift it. ${hold.howToLift}`,
      when: stops && work?.adding === 'notYet' ? `before ${shortInstant(work.opens!, shelf.zone)}` : ''
    }
  })
}

function ofPrograms({ picture }: TodoQuestion): Todo[] {
  return picture.programs.flatMap(({ spec, confirmed, saidInstead }): Todo[] => {
    if (confirmed === 'confirmed') return []
    if (confirmed === 'open')
      return [
        {
          id: `program ${spec.code}`,
          urgency: 'attention',
          title: `Is ${spec.title} right?`,
          text: `Catalog year ${spec.catalogYear}. Everything the audit says rests on it.`,
          when: '',
          action: { label: 'Confirm or report', to: '#program' }
        }
      ]
    return [
      {
        id: `program ${spec.code}`,
        urgency: 'attention',
        title: `You said that ${spec.shortTitle} is wrong`,
        text: `You wrote “${saidInstead}”. Until the registrar has settled it, the audit rests on an unconfirmed program.`,
        when: 'waits for the registrar'
      }
    ]
  })
}

/** What a term asks for, from its sign-off to its grades. */
function ofTerm(question: TodoQuestion, standing: TermStanding<TermView>): Todo[] {
  const { term, state, adding } = standing
  if (state === 'gradesDue')
    return [
      {
        id: `grades ${term.code}`,
        urgency: 'later',
        title: `Grades of ${term.name} are due`,
        text: `${count(standing.ungraded, 'course')} of ${term.name} ${standing.ungraded === 1 ? 'has' : 'have'} no grade yet.`,
        when: `over since ${dayMonth(term.end)}`,
        action: { label: 'See the degree', to: 'degree' }
      }
    ]
  const isAtWork = question.work?.term.code === term.code
  const open = adding === 'open' || adding === 'notYet'
  return [
    ...(open && isAtWork && !standing.unsettled && !standing.taken
      ? [nothingPlanned(question, standing)]
      : []),
    ...(open && standing.unsettled ? [toRegister(question, standing)] : []),
    ...(adding === 'none' && standing.unsettled && state === 'underWay' ? [noOpening(standing)] : []),
    ...ofSignOff(question, standing),
    ...(adding === 'ended' ? [] : ofWeek(question, standing)),
    ...ofOffice(question, standing),
    ...ofPayment(question, standing)
  ]
}

const whenOf = (
  { now }: Pick<TodoQuestion, 'now'>,
  { adding, opens }: Pick<TermStanding, 'adding' | 'opens'>
): string => (adding === 'notYet' ? `in ${timeLeft(opens! - now)}` : adding === 'open' ? 'now' : '')

function nothingPlanned(question: TodoQuestion, standing: TermStanding<TermView>): Todo {
  const { term, adding } = standing
  return {
    id: `plan ${term.code}`,
    urgency: 'attention',
    title: `Nothing is planned for ${term.name}`,
    text: 'Start from what your degree still needs.',
    when: adding === 'notYet' ? `opens ${whenOf(question, standing)}` : 'open for you',
    action: { label: 'See what is needed', to: 'degree' }
  }
}

function noOpening({ term, unsettled }: TermStanding<TermView>): Todo {
  return {
    id: `opening ${term.code}`,
    urgency: 'stops',
    title: `No opening of ${term.name} is for you`,
    text: `${count(unsettled, 'planned course')} cannot be registered. The registrar decides on openings.`,
    when: '',
    action: { label: 'See the term', to: 'register' }
  }
}

function toRegister(question: TodoQuestion, standing: TermStanding<TermView>): Todo {
  const { picture } = question
  const { term, adding, unsettled } = standing
  const { picked } = termWeek(picture, term.code, goingWith(picture, term.code))
  const settled = new Set(picked.map((one) => one.course))
  const held = new Set(picture.held.filter((one) => one.term === term.code).map((one) => one.course))
  const planned = picture.route.courses.filter((one) => one.term === term.code)
  const without = planned.filter((one) => !held.has(one.course) && !settled.has(one.course)).length
  return {
    id: `opening ${term.code}`,
    urgency: adding === 'open' ? 'attention' : 'plain',
    title: adding === 'open' ? `${term.name} is open for you` : `${term.name} opens for you`,
    text: without
      ? `${count(unsettled, 'course')} to register, ${without} without a section.`
      : `${count(unsettled, 'course')} on the run sheet, each with a section.`,
    when: whenOf(question, standing),
    action: without ? { label: 'Pick sections', to: 'week' } : { label: 'Run sheet', to: 'register' }
  }
}

function ofSignOff(question: TodoQuestion, standing: TermStanding<TermView>): Todo[] {
  const { picture, now, shelf } = question
  const { term, adding, unsettled } = standing
  if (term.signOffPolicy === 'none' || adding === 'ended') return []
  const since = sinceSignOff(picture, term.code)
  if (since && hasChanged(since))
    return [
      {
        id: `changed ${term.code}`,
        urgency: 'attention',
        title: `${term.name} has changed since it was signed off`,
        text: `${sinceText(since)}. ${since.signOff.by} sees it too.`,
        when: '',
        action: { label: 'See the route', to: 'route' }
      }
    ]
  if (since || !unsettled) return []
  const asked = picture.route.reviewAskedAt
  const advisor = picture.advisors.find((one) => one.purpose === 'program')
  return [
    {
      id: `sign-off ${term.code}`,
      urgency: adding === 'open' ? 'stops' : 'attention',
      title: `${term.name} is not signed off yet`,
      text: asked
        ? `You asked ${advisor?.name ?? 'your advisor'} for a review.`
        : 'Registration needs the sign-off of your advisor. Ask for a review of your route.',
      when: asked ? `asked ${ago(asked, now, shelf.zone)}` : '',
      action: { label: asked ? 'See the route' : 'Ask for review', to: 'route' }
    }
  ]
}

/** What is picked: to be exchanged, changed since it was picked, impossible to register. */
function ofWeek(question: TodoQuestion, standing: TermStanding<TermView>): Todo[] {
  const { picture, shelf } = question
  const { term, adding, opens } = standing
  const draft = goingWith(picture, term.code)
  const { wanted, exchanged } = termWeek(picture, term.code, draft)
  const before =
    adding === 'notYet' ? `before ${shortInstant(opens!, shelf.zone)}` : whenOf(question, standing)
  const found = [...exchanged].map((course): Todo => ({
    id: `exchange ${term.code} ${course}`,
    urgency: adding === 'open' ? 'attention' : 'plain',
    title: `${course} is to be exchanged`,
    text: 'You hold your seat until the run sheet has taken the other one.',
    when: whenOf(question, standing),
    action: { label: 'Run sheet', to: 'register' }
  }))
  const told = new Set<string>()
  for (const section of wanted)
    for (const what of changesSince(section, draft?.asPicked[section.code] ?? null)) {
      told.add(section.course)
      found.push({
        id: `${what} ${section.code}`,
        urgency: 'attention',
        title: `${sectionName(section)} ${SINCE_WORDS[what]}`,
        text:
          what === 'moved'
            ? `It is now ${sectionHours(section)}. Pick it again if that suits you, or another one.`
            : 'Pick another section of it before you register.',
        when: before,
        action: { label: 'See the week', to: 'week' }
      })
    }
  for (const { course, text } of impossiblePicks(question, standing, wanted))
    if (!told.has(course))
      found.push({
        id: `impossible ${term.code} ${course}`,
        urgency: 'attention',
        title: `${course} cannot be registered as it is picked`,
        text,
        when: before,
        action: { label: 'See the week', to: 'week' }
      })
  return found
}

/** Picks that the run would refuse as of the opening, with the first reason for each. */
function impossiblePicks(
  { picture, shelf, now }: TodoQuestion,
  { term, opens }: TermStanding<TermView>,
  wanted: readonly Section[]
): { course: string; text: string }[] {
  const offer = shelf.offers.get(term.code)?.sections
  const draft = goingWith(picture, term.code)
  if (!offer || !draft || !wanted.length) return []
  const { held, exchanged } = termWeek(picture, term.code, draft)
  const facts = registrationFacts(picture, shelf, {
    term: term.code,
    now: Math.max(now, opens ?? now),
    heldSections: held,
    exchanging: exchanged,
    offer
  })
  const courses = new Set(wanted.map((one) => one.course))
  // Seats as they came with the picks: those of the whole offer may be older.
  const fresh = new Map(picture.sections.map((one) => [one.code, one]))
  const options = pickedOptions(
    offer.map((one) => fresh.get(one.code) ?? one),
    draft.sections
  )
  const lines = [...options.values()].filter((one) => courses.has(one.course))
  return [...rehearse(facts, lines).values()].flatMap(({ course, refusals }) => {
    const first = refusals.find((one) => !GENERAL_REFUSALS.has(one.code))
    return first ? [{ course, text: refusalText(first, shelf.zone) }] : []
  })
}

function ofOffice({ picture }: TodoQuestion, { term, state }: TermStanding<TermView>): Todo[] {
  if (state !== 'ahead') return []
  const placed = picture.held.filter((one) => one.term === term.code && one.placedByOffice)
  if (!placed.length) return []
  return [
    {
      id: `placed ${term.code}`,
      urgency: 'plain',
      title: `An office placed you in ${placed.map((one) => one.course).join(', ')}`,
      text: `You hold ${placed.length === 1 ? 'this seat' : 'these seats'} in ${term.name} already; only the office can move you.`,
      when: '',
      action: { label: 'See the week', to: 'week' }
    }
  ]
}

function ofPayment({ reading }: TodoQuestion, standing: TermStanding<TermView>): Todo[] {
  const { term, ungraded, state, adding } = standing
  if (!ungraded || state === 'gradesDue' || (state === 'underWay' && adding === 'ended')) return []
  const left = dayNumber(term.paymentDueOn) - dayNumber(reading.today)
  if (left > PAYMENT_SOON) return []
  const text = 'Ridgeway does not know what you have paid; the cashier does.'
  return [
    {
      id: `payment ${term.code}`,
      urgency: left < 0 ? 'attention' : 'plain',
      title: left < 0 ? `Payment for ${term.name} was due` : `Payment for ${term.name} is due`,
      text,
      when: left === 0 ? 'today' : dayMonth(term.paymentDueOn)
    }
  ]
}

function ofLines({ picture, reading }: TodoQuestion): Todo[] {
  return picture.waiting.flatMap((place): Todo[] => {
    const standing = reading.standings.find((one) => one.term.code === place.term)
    if (!standing || !isAlive(standing) || standing.adding === 'ended') return []
    return [
      {
        id: `line ${place.section}`,
        urgency: 'plain',
        title: `In line for ${place.course}`,
        text: `You are number ${place.place} for ${place.section} in ${standing.term.name}. A place in line is not a seat.`,
        when: '',
        action: { label: 'Look at other sections', to: 'week' }
      }
    ]
  })
}

function ofFindings({ reading, shelf, work }: TodoQuestion): Todo[] {
  const names = (code: string) => {
    const term = shelf.terms.find((one) => one.code === code)
    return term ? shortName(term) : code
  }
  const missed = reading.findings.filter((one) => one.code === 'begun')
  const others = reading.findings.filter((one) => one.code !== 'begun')
  return [...missedTerms(missed, names), ...others.map(ofFinding)]

  function ofFinding(finding: Finding): Todo {
    const isNow = finding.term === work?.term.code
    return {
      id: `finding ${finding.code} ${finding.term} ${'course' in finding ? finding.course : ''}`,
      urgency: isNow ? 'attention' : 'later',
      title: findingSubject(finding, names),
      text: findingText(finding, names),
      when: isNow ? 'in this term' : 'not urgent',
      action: { label: 'Settle', to: 'route' }
    }
  }
}

/** Courses planned for a term to which nothing can be added any more, and not taken: one thing for each term. */
function missedTerms(
  findings: readonly Extract<Finding, { code: 'begun' }>[],
  names: (code: string) => string
): Todo[] {
  return [...new Set(findings.map((one) => one.term))].map((term): Todo => {
    const courses = findings.filter((one) => one.term === term).map((one) => one.course)
    return {
      id: `missed ${term}`,
      urgency: 'attention',
      title: `${count(courses.length, 'planned course')} of ${names(term)} ${courses.length === 1 ? 'was' : 'were'} not taken`,
      text: `${courses.join(', ')}: nothing can be added to ${names(term)} any more. Move ${courses.length === 1 ? 'it' : 'them'} to another term or take ${courses.length === 1 ? 'it' : 'them'} off the route.`,
      when: '',
      action: { label: 'Settle', to: 'route' }
    }
  })
}
