/**
 * The registration decision: the one place that says whether a student may register a section.
 * Search, rehearsal and the run itself ask it, with the instant it is to hold for.
 *
 * A group goes through together or not at all: a section with its components, and courses that ask
 * for each other. All reasons are collected. A cancelled section is not judged further.
 */
import type { Catalog, Term } from '../catalog'
import { allAttempts, attemptsOf, type HeldSeat, type RecordEntry, type Attempt } from '../degree'
import type { Refusal } from '../findings'
import type { CourseCode, SectionCode } from '../ids'
import { assumedLeaves, evaluateRule, missingPart, ruleOf, splitMissing, type RuleLeaf } from '../requisites'
import { asOfTerm, type StudentFacts } from '../route'
import { decideDrop, type DropDates, type SessionDates } from './drop'
import { isSignedOff, judgeConditions, standingSignOff, type SignOff, type SignOffPolicy } from './signOff'
import type { Instant } from '../time'
import {
  barriersOf,
  clashesWith,
  keptForOthers,
  PERMISSION_KINDS,
  permits,
  sectionsOf,
  type ComponentKind,
  type Holidays,
  type Option,
  type PermissionKind,
  type Permissions,
  type Section
} from '../week'

export interface Hold {
  title: string
  office: string
  amount: number | null
  stopsRegistration: boolean
}

export interface RegistrationFacts {
  /** The instant the decision is for. */
  now: Instant
  catalog: Catalog
  terms: readonly Term[]
  term: Term
  /** From when this student may register; null when no opening is for them. */
  opens: Instant | null
  /** From when nothing can be added any more. */
  closes: Instant
  drop: DropDates
  /** Sessions of the term with dates of their own; in the others those of the term hold. */
  sessions: ReadonlyMap<string, SessionDates>
  student: StudentFacts
  holds: readonly Hold[]
  record: readonly RecordEntry[]
  /** Seats held in every term, and the sections of those in this one. */
  held: readonly HeldSeat[]
  heldSections: readonly Section[]
  /** Courses of which the seat held is given back in the same step in which another one is taken. */
  exchanging: ReadonlySet<CourseCode>
  /** By course: another one whose seat is given up in the step in which this one is taken, and only then. */
  givingUp: ReadonlyMap<CourseCode, CourseCode>
  /** The block the student belongs to. */
  block: string | null
  holidays: Holidays
  loadMost: number
  /** A course earned here with less than this grade may be taken again; null: none that is earned. */
  repeatBelow: string | null
  /** The term's rule, and the approval that was given, ended or not. */
  /** `changed`: the term is no more as it was signed off. */
  signOff: { policy: SignOffPolicy; given: SignOff | null; changed: boolean }
  /** Whether the terms of registration are accepted, or the term has none. */
  agreed: boolean
  /** What is set aside for this student as of the instant. */
  permissions: Permissions
  /** Courses that are taken only together with another one, by the student's own wish. */
  onlyWith: ReadonlyMap<CourseCode, CourseCode>
  /** Kinds of components the section has in this term, whatever was chosen. */
  componentsOf: (section: SectionCode) => readonly ComponentKind[]
  /** Where an office places the student, with what it says; sections that only an office registers are open to it. */
  placing?: Placing | undefined
}

/** What an office may set aside, by name, where it places students: rules about when and on whose word, none about the course. */
export const OFFICE_OVERRIDES = ['notOpen', 'signOff', 'notAgreed'] as const
export type OfficeOverride = (typeof OFFICE_OVERRIDES)[number]

export interface Placing {
  setAside: ReadonlySet<OfficeOverride>
}

export interface LineDecision {
  course: CourseCode
  refusals: Refusal[]
  /** Holds only if these are finished as hoped. */
  assumed: RuleLeaf[]
  /** Rules that would stand against it and that a permission sets aside. */
  setAside: PermissionKind[]
}

/** Decides for each option of a group; a refused one takes the others with it. */
export function decide(facts: RegistrationFacts, group: readonly Option[]): LineDecision[] {
  const general = generalRefusals(facts)
  const lines = group.map((option): LineDecision => {
    const { refusals, assumed, setAside } = optionRefusals(facts, option, group)
    const isLate = permits(facts.permissions, 'late', option.main.code)
    if (isLate && general.some((one) => one.code === 'closed')) setAside.add('late')
    return {
      course: option.course,
      refusals: [...general.filter((one) => !isLate || one.code !== 'closed'), ...refusals],
      assumed,
      setAside: PERMISSION_KINDS.filter((kind) => setAside.has(kind))
    }
  })
  const failed = lines.find((line) => line.refusals.length)
  if (failed) {
    for (const line of lines) {
      if (!line.refusals.length) line.refusals.push({ code: 'together', with: failed.course })
    }
  }
  return lines
}

/** Reasons that have nothing to do with a section: time, holds, sign-off, the terms of registration. */
export function generalRefusals(
  facts: Pick<RegistrationFacts, 'now' | 'opens' | 'closes' | 'holds' | 'signOff' | 'agreed' | 'placing'>
): Refusal[] {
  const refusals: Refusal[] = []
  if (facts.now >= facts.closes) refusals.push({ code: 'closed', since: facts.closes })
  else if (facts.opens === null || facts.now < facts.opens)
    refusals.push({ code: 'notOpen', opens: facts.opens })
  for (const { title, office, amount, stopsRegistration } of facts.holds) {
    if (stopsRegistration) refusals.push({ code: 'hold', title, office, amount })
  }
  const { policy, given, changed } = facts.signOff
  const stands = standingSignOff(given, facts.now) !== null
  const isLost = policy === 'anew' && stands && changed
  if (policy !== 'none' && (!stands || isLost))
    refusals.push({ code: 'signOff', ended: isLost ? null : (given?.until ?? null), changed: isLost })
  if (!facts.agreed) refusals.push({ code: 'notAgreed' })
  const aside: ReadonlySet<string> = facts.placing?.setAside ?? new Set()
  return refusals.filter((one) => !aside.has(one.code))
}

/**
 * The sections given back when an option of a course is taken: all that the student holds of it where it is exchanged,
 * and of the course that is given up for it.
 */
export function givenBack(
  facts: Pick<RegistrationFacts, 'heldSections' | 'exchanging' | 'givingUp'>,
  course: CourseCode
): Section[] {
  const other = givenUpFor(facts, course)
  return facts.heldSections.filter((section) =>
    section.course === course ? facts.exchanging.has(course) : section.course === other
  )
}

/** The course whose seat is given up once a seat of another one is had; undefined where none is held. */
export function givenUpFor(
  { heldSections, givingUp }: Pick<RegistrationFacts, 'heldSections' | 'givingUp'>,
  course: CourseCode
): CourseCode | undefined {
  const other = givingUp.get(course)
  return heldSections.some((section) => section.course === other) ? other : undefined
}

/** Courses of which no seat of before is held once a group has gone through: its own, and what is given up for them. */
function goneWith(facts: RegistrationFacts, group: readonly Option[]): Set<CourseCode> {
  return new Set(group.flatMap(({ course }) => [course, givenUpFor(facts, course) ?? course]))
}

/** The facts once a group has gone through. */
export function afterGroup(facts: RegistrationFacts, group: readonly Option[]): RegistrationFacts {
  const gone = goneWith(facts, group)
  return {
    ...facts,
    heldSections: [
      ...facts.heldSections.filter((section) => !gone.has(section.course)),
      ...group.flatMap(sectionsOf)
    ],
    held: [...heldWithout(facts, gone), ...group.map((option) => seatIn(facts, option))]
  }
}

/** Why the course that is given up for an option cannot be, once its group has gone through. */
function keptRefusals(facts: RegistrationFacts, { course }: Option, group: readonly Option[]): Refusal[] {
  const other = givenUpFor(facts, course)
  if (other === undefined || group.some((one) => one.course === other)) return []
  const taken = afterGroup({ ...facts, givingUp: new Map() }, group)
  const all = new Set(group.flatMap((one) => givenUpFor(facts, one.course) ?? []))
  const decision = decideDrop(taken, [...all]).find((one) => one.course === other)
  return decision!.refusals.map((why) => ({ code: 'notGivenUp', course: other, why }))
}
const heldWithout = ({ held, term }: RegistrationFacts, gone: ReadonlySet<CourseCode>) =>
  held.filter((seat) => seat.term !== term.code || !gone.has(seat.course))
const seatIn = (
  { term, placing }: Pick<RegistrationFacts, 'term' | 'placing'>,
  { course, main }: Option
): HeldSeat => ({
  course,
  term: term.code,
  section: main.code,
  credits: main.credits,
  placedByOffice: placing !== undefined
})

function optionRefusals(facts: RegistrationFacts, option: Option, group: readonly Option[]) {
  const refusals: Refusal[] = []
  const setAside = new Set<PermissionKind>()
  const sections = sectionsOf(option)
  const only = (refusal: Refusal) => ({ refusals: [refusal], assumed: [], setAside })
  const cancelled = sections.find((section) => section.cancelled)
  if (cancelled) return only({ code: 'cancelled', section: cancelled.code })
  /** Refuses, unless a permission of one of the sections sets just this rule aside. */
  const refuse = (refusal: Refusal, kind: PermissionKind, at: readonly Section[] = sections) => {
    if (permits(facts.permissions, kind, ...at.map((section) => section.code))) setAside.add(kind)
    else refusals.push(refusal)
  }

  const mine = new Map(
    facts.heldSections.flatMap((one) => (one.course === option.course ? [[one.code, one.credits]] : []))
  )
  if (mine.size) {
    const isAnother =
      mine.size !== sections.length || sections.some(({ code, credits }) => mine.get(code) !== credits)
    if (!isAnother || !facts.exchanging.has(option.course)) return only({ code: 'alreadyRegistered' })
    const isPlaced = facts.held.some(
      (seat) => seat.term === facts.term.code && seat.course === option.course && seat.placedByOffice
    )
    if (isPlaced && !facts.placing) return only({ code: 'placed' })
  }
  const partner = facts.onlyWith.get(option.course)
  const isHeld = facts.heldSections.some((section) => section.course === partner)
  if (partner && !isHeld && !group.some((other) => other.course === partner))
    refusals.push({ code: 'together', with: partner })
  const addEnds = facts.sessions.get(option.main.session)?.addEnds
  if (addEnds !== undefined && facts.now >= addEnds && facts.now < facts.closes)
    refuse({ code: 'sessionClosed', section: option.main.code, since: addEnds }, 'late', [option.main])
  const { policy, given } = facts.signOff
  const signed = policy === 'none' ? null : standingSignOff(given, facts.now)
  if ((policy === 'strict' || policy === 'anew') && signed && !isSignedOff(signed, option.course)) {
    refusals.push({ code: 'outsideSignOff' })
  }
  const chosen = new Set(option.components.map((section) => section.kind))
  for (const kind of facts.componentsOf(option.main.code)) {
    if (!chosen.has(kind)) refusals.push({ code: 'componentMissing', kind })
  }
  for (const section of sections) {
    if (mine.has(section.code)) continue
    for (const barrier of barriersOf(section, { ...facts.student, permissions: new Map() })) {
      if (barrier.code === 'officeOnly') {
        if (!facts.placing) refusals.push(barrier)
      } else refuse(barrier, barrier.code === 'permission' ? 'consent' : 'restriction', [section])
    }
    const seats = seatRefusal(facts, section)
    if (seats) refuse(seats, seats.code, [section])
  }

  const others = group.filter((other) => other !== option)
  const gone = goneWith(facts, group)
  const consented = permits(facts.permissions, 'consent', ...sections.map((section) => section.code))
  const { assumed, ...asked } = courseRefusals(facts, option.course, {
    others,
    gone,
    consented,
    main: option.main
  })
  for (const refusal of asked.refusals) {
    if (refusal.code === 'prerequisite' || refusal.code === 'corequisite') refuse(refusal, refusal.code)
    else refusals.push(refusal)
  }

  refusals.push(...keptRefusals(facts, option, group))
  const staying = facts.heldSections.filter((section) => !gone.has(section.course))
  const week = [...staying, ...others.flatMap(sectionsOf)]
  for (const { own, with: other, clash } of clashesWith(
    { course: option.course, sections },
    week,
    facts.holidays
  )) {
    // Two sections clash: a permission of either lets both stand, and one of a section its components too.
    refuse({ code: 'clash', with: other.course, clash }, 'clash', [own, other, option.main])
  }
  const load = (list: readonly Section[]) => list.reduce((sum, section) => sum + section.credits, 0)
  const credits = load(staying) + group.reduce((sum, one) => sum + load(sectionsOf(one)), 0)
  // What is held already was let in: an exchange that adds nothing stays within what was signed off.
  const mostSigned = signed && credits > load(facts.heldSections) ? signed.creditsMost : Infinity
  if (credits > facts.loadMost) refuse({ code: 'load', credits, most: facts.loadMost }, 'load')
  else if (credits > mostSigned) refuse({ code: 'conditionCredits', credits, most: mostSigned }, 'load')
  if (!signed) return { refusals, assumed, setAside }
  const beside = new Set(week.map((section) => section.course))
  const judged = judgeConditions(signed.conditions, option.course, beside, () =>
    asOfTerm(facts.term.code, facts.terms, attemptsWith(facts, others, gone), facts.student, facts.catalog)
  )
  return { refusals: [...refusals, ...judged.refusals], assumed: [...assumed, ...judged.assumed], setAside }
}

/** Why the seats of a section leave none for this student; undefined where one is free for them. */
export function seatRefusal(
  { student, block }: Pick<RegistrationFacts, 'student' | 'block'>,
  section: Section
): Extract<Refusal, { code: 'full' | 'reserved' }> | undefined {
  const { code, kind, capacity, waiting } = section
  const left = capacity - section.taken
  const kept = keptForOthers(section, { programs: student.programs, block })
  if (left <= 0) return { code: 'full', section: code, kind, capacity, waiting }
  return left <= kept ? { code: 'reserved', section: code, kind, left } : undefined
}

/** Reasons that have to do with the course, whatever the section. */
function courseRefusals(
  facts: RegistrationFacts,
  code: CourseCode,
  {
    others,
    gone,
    consented,
    main
  }: { others: readonly Option[]; gone: ReadonlySet<CourseCode>; consented: boolean; main?: Section }
) {
  const { catalog, terms, term, student } = facts
  const refusals: Refusal[] = []
  const attempts = attemptsWith(facts, others, gone)
  /** In the term itself a seat of the course is another matter: it is held already, or exchanged. */
  const isElsewhere = (attempt: Attempt) =>
    attempt.status === 'earned' || attempt.term !== term.code || attempt.course !== code
  const course = catalog.maybeCourse(code)
  const same: readonly string[] = catalog.sameAs(code)
  const there = course?.repeatable
    ? []
    : attempts.filter((one) => isElsewhere(one) && same.includes(one.course))
  const earned = there.find((one) => one.status === 'earned' && !mayRepeat(one, facts))
  const taken = there.find((one) => one.status !== 'earned' && one.term)
  if (earned) refusals.push({ code: 'alreadyEarned', grade: earned.grade, below: facts.repeatBelow })
  else if (taken?.term) {
    const name = terms.find((one) => one.code === taken.term)?.name ?? taken.term
    refusals.push({ code: 'alreadyTaken', term: taken.term, name, held: taken.status === 'registered' })
  }
  const rule = ruleOf(main?.prerequisite ?? course?.prerequisite ?? '')
  if (!rule) return { refusals, assumed: [] }
  const asOf = { ...asOfTerm(term.code, terms, attempts, student, catalog), permitted: consented }
  const result = evaluateRule(rule, asOf)
  const { before, together } = splitMissing(missingPart(result))
  if (before && !student.waived?.has(code)) refusals.push({ code: 'prerequisite', missing: before })
  if (together) refusals.push({ code: 'corequisite', missing: together })
  return { refusals, assumed: assumedLeaves(result) }
}

/** What was earned with a grade of the scale below the limit is taken again to better it; credit from elsewhere is not. */
function mayRepeat(
  { grade, origin }: Attempt,
  { repeatBelow: below, catalog: { scale } }: Pick<RegistrationFacts, 'repeatBelow' | 'catalog'>
): boolean {
  if (below === null || grade === null || origin !== 'here') return false
  return (
    scale.has(grade) &&
    scale.has(below) &&
    scale.meaning(grade).points !== null &&
    !scale.atLeast(grade, below)
  )
}

const alone = new WeakMap<RegistrationFacts, Attempt[]>()

/** What the student has, with the courses taken along; where none changes it, worked out once for the same facts. */
function attemptsWith(
  facts: RegistrationFacts,
  others: readonly Option[],
  gone: ReadonlySet<CourseCode>
): Attempt[] {
  const { catalog, terms, term, record } = facts
  const isChanged =
    others.length > 0 || facts.held.some((seat) => seat.term === term.code && gone.has(seat.course))
  const known = isChanged ? undefined : alone.get(facts)
  if (known) return known
  const held = [...heldWithout(facts, gone), ...others.map((option) => seatIn(facts, option))]
  const all = allAttempts(attemptsOf({ catalog, record, held, planned: [] }, terms))
  if (!isChanged) alone.set(facts, all)
  return all
}

/** The decision about a course whose sections are not known yet: what can be said without one. */
export function decideWithoutSection(facts: RegistrationFacts, course: CourseCode): LineDecision {
  const { refusals, assumed } = courseRefusals(facts, course, {
    others: [],
    gone: new Set(),
    consented: false
  })
  return { course, refusals: [...generalRefusals(facts), ...refusals], assumed, setAside: [] }
}
