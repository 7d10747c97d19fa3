/**
 * What a student has to do next, in order of consequence: worked out from the record, the route, the sections on
 * offer and the campus time, so that it holds on every day of the year.
 */
import { isAlive } from '#core/calendar'
import type { Finding } from '#core/findings'
import { dayNumber, isoDate } from '#core/time'
import { isActive } from '#shared/appointments/appointments'
import { appointmentTime } from '#shared/appointments/texts'
import { waitingText } from '#shared/advising/suggestions'
import { isOverdue } from '#shared/advising/talk'
import { dueText } from '#shared/advising/texts'
import { holdsFor } from '#shared/charges/balance'
import { termsAlive } from '#shared/reading'
import { findingSubject, findingText } from '#shared/route/texts'
import { campusDate, deadlineText, instantText, shortInstant, timeLeft } from '#shared/when'
import { count } from '#shared/words'
import { type Urgency, type TodoQuestion, type Todo, shortName } from './task'
import { ofIntentions, ofTerm } from './tasksOfTerm'

const ORDER: readonly Urgency[] = ['runsOut', 'stops', 'attention', 'plain', 'later']

export function thingsToDo(question: TodoQuestion): Todo[] {
  const { reading } = question
  if (isClosed(question)) return []
  const things = [
    ...ofOffers(question),
    ...ofHolds(question),
    ...ofPrograms(question),
    ...termsAlive(reading).flatMap((one) => ofTerm(question, one)),
    ...question.catalogContext.terms.flatMap((term) => ofIntentions(question, term)),
    ...ofGraduation(question),
    ...ofTalk(question),
    ...ofSuggestions(question),
    ...ofAppointments(question),
    ...ofAgreed(question),
    ...ofLines(question),
    ...ofFindings(question)
  ]
  return things.sort((a, b) => ORDER.indexOf(a.urgency) - ORDER.indexOf(b.urgency))
}

/** The degree is awarded: nothing is to do any more, and nothing can be. */
const isClosed = ({ studentRecord }: Pick<TodoQuestion, 'studentRecord'>): boolean =>
  studentRecord.graduations.some((one) => one.awarded)

/** What is said where there is nothing to do. */
export function nothingToDo({ work, studentRecord }: Pick<TodoQuestion, 'work' | 'studentRecord'>): string {
  if (isClosed({ studentRecord }))
    return 'Your degree is awarded and your record closed. It can be read, and transcripts sent, for good.'
  if (!work?.taken || work.unsettled || work.state === 'gradesDue') return 'Nothing waits for you.'
  return `Nothing waits for you. You hold a seat in every course planned for ${work.term.name}.`
}

/** Days before applications to graduate close from which it is told. */
const GRADUATION_SOON = 45

/** Whose route completes the degree in a term applies for it in time. */
function ofGraduation({ studentRecord, reading, now, catalogContext }: TodoQuestion): Todo[] {
  const { finish: term } = reading
  const by = term?.graduateBy ?? null
  if (!term || by === null || now >= by || by - now > GRADUATION_SOON * 86_400_000) return []
  if (studentRecord.graduations.length) return []
  return [
    {
      id: 'graduation',
      urgency: 'attention',
      title: `Apply to graduate in ${term.name}`,
      text: 'Your route is complete at the end of it. What is still in the way stands with your record.',
      when: `until ${deadlineText(by, catalogContext.zone)}`,
      action: { label: 'See the record', to: 'degree/record' }
    }
  ]
}

function ofHolds({ studentRecord, work, catalogContext, reading }: TodoQuestion): Todo[] {
  return holdsFor(studentRecord, catalogContext.terms, work?.term, reading.today).map((hold): Todo => {
    const amount = hold.amount === null ? '' : `, ${hold.amount.toFixed(2)}`
    const stops = hold.stopsRegistration
    return {
      id: `hold ${hold.title}`,
      urgency: stops ? 'stops' : 'later',
      title: `Hold: ${hold.title.toLowerCase()}${amount}`,
      text: `${stops ? 'Stops you from registering.' : 'Does not stop registration.'} Only ${hold.office} can lift it. ${hold.howToLift}`,
      when:
        stops && work?.adding === 'notYet' ? `before ${shortInstant(work.opens!, catalogContext.zone)}` : ''
    }
  })
}

/** What advisors wrote and was not read yet. */
function ofTalk({ studentRecord }: TodoQuestion): Todo[] {
  // What somebody else has not read is theirs to read.
  if (studentRecord.relation !== 'self') return []
  const fresh = (studentRecord.talk ?? []).filter((thread) => thread.unread > 0)
  const last = fresh.flatMap((thread) => thread.remarks.filter((one) => !one.own)).at(-1)
  if (!last) return []
  return [
    {
      id: 'talk',
      urgency: 'attention',
      title:
        fresh.length === 1
          ? `${last.by} wrote to you`
          : `${count(fresh.length, 'matter')} of the talk have something new`,
      text: `“${last.text}”`,
      when: '',
      action: { label: 'Read and answer', to: 'route' }
    }
  ]
}

/** Changes of the route that wait for the student's answer. */
function ofSuggestions({ studentRecord }: TodoQuestion): Todo[] {
  const waiting = (studentRecord.suggestions ?? []).filter((one) => one.state === 'waiting')
  if (!waiting.length) return []
  const why = waiting.findLast((one) => one.why)?.why
  return [
    {
      id: 'suggestions',
      urgency: 'attention',
      title: waitingText(waiting),
      text: `${why ? `“${why}” ` : ''}Nothing changes until you accept it.`,
      when: '',
      action: { label: 'Look and answer', to: 'route' }
    }
  ]
}

/** Invitations that wait for an answer, and what is booked within a week. */
function ofAppointments({
  studentRecord,
  reading: { today },
  catalogContext: { zone },
  now
}: TodoQuestion): Todo[] {
  const soon = isoDate(dayNumber(today) + 7)
  return (studentRecord.appointments ?? [])
    .filter((one) => isActive(one) && one.endsAt > now)
    .filter((one) => one.state === 'invited' || campusDate(one.startsAt, zone) <= soon)
    .map((one): Todo => {
      const isOpen = one.state === 'invited'
      const bring = one.bring ? ` To bring: ${one.bring}` : ''
      return {
        id: `appointment ${one.id}`,
        urgency: isOpen ? 'attention' : 'plain',
        title: isOpen ? `${one.advisor.name} invites you` : `Appointment with ${one.advisor.name}`,
        text: `${appointmentTime(one, zone)}, ${one.place}.${one.about ? ` ${one.about}` : ''}${bring}`,
        when: one.startsAt > now ? `in ${timeLeft(one.startsAt - now)}` : 'now',
        action: { label: isOpen ? 'Answer it' : 'See it', to: 'route' }
      }
    })
}

/** What the student agreed to do, from a week before its day. */
function ofAgreed({ studentRecord, reading: { today } }: TodoQuestion): Todo[] {
  const soon = isoDate(dayNumber(today) + 7)
  return studentRecord.agreed
    .filter(({ who, done, due }) => who === 'student' && !done && due !== null && due <= soon)
    .map((line): Todo => {
      const late = isOverdue(line, today)
      return {
        id: `agreed ${line.id}`,
        urgency: late ? 'attention' : 'plain',
        title: line.what,
        text: `Agreed with ${line.madeBy}.`,
        when: dueText(line, today),
        action: { label: 'See what was agreed', to: 'route' }
      }
    })
}

function ofPrograms({ studentRecord }: TodoQuestion): Todo[] {
  return studentRecord.programs.flatMap(({ spec, confirmed, saidInstead }): Todo[] => {
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

/** Seats that are held for a time come first of all: nothing else runs out so soon. */
function ofOffers({ studentRecord, reading, now, catalogContext }: TodoQuestion): Todo[] {
  return studentRecord.offers
    .filter((offer) => offer.until > now)
    .map((offer): Todo => {
      const term = reading.standings.find((one) => one.term.code === offer.term)?.term.name ?? offer.term
      return {
        id: `offer ${offer.id}`,
        urgency: 'runsOut',
        title: `A seat in ${offer.course} is held for you`,
        text: `${term}. Answer by ${instantText(offer.until, catalogContext.zone)}; then it goes to the next in line.`,
        when: `${timeLeft(offer.until - now)} left`,
        action: { label: 'Answer the offer', to: 'register' }
      }
    })
}

function ofLines({ studentRecord, reading, now }: TodoQuestion): Todo[] {
  const offered = new Set(studentRecord.offers.map((one) => `${one.term} ${one.course}`))
  const told = new Set<string>()
  return [...studentRecord.waiting]
    .sort((a, b) => b.place - a.place)
    .flatMap((place): Todo[] => {
      const key = `${place.term} ${place.course}`
      const standing = reading.standings.find((one) => one.term.code === place.term)
      if (!standing || !isAlive(standing) || now >= standing.term.line.closes) return []
      if (offered.has(key) || told.has(key)) return []
      told.add(key)
      return [
        {
          id: `line ${place.section}`,
          urgency: 'plain',
          title: `In line for ${place.course}`,
          text: `You are number ${place.place} of ${place.of} for ${place.section} in ${standing.term.name}. A place in line is not a seat.`,
          when: '',
          action: { label: 'Look at other sections', to: 'week' }
        }
      ]
    })
}

function ofFindings({ reading, catalogContext, work }: TodoQuestion): Todo[] {
  const names = (code: string) => {
    const term = catalogContext.terms.find((one) => one.code === code)
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
