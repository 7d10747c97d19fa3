/** Placing many students at once: who they are, and what is proposed for each. */
import type { Refusal } from '#core/findings'
import type { CourseCode, SectionCode, StudentId } from '#core/ids'
import type { OfficeOverride } from '#core/registration'
import type { Instant } from '#core/time'
import { refusalText } from '#shared/registration/texts'
import { aboutThem } from '#shared/voice'
import { count } from '#shared/words'

/** From whom can be chosen in a term. */
export interface PlacingGroups {
  handedIn: number
  blocks: { code: string; title: string; students: number; courses: CourseCode[] }[]
  openings: { id: number; title: string; opens: Instant; students: number }[]
}

/** `planned`: on the chosen route, by who handed nothing in. */
export type PlacingGround = 'handedIn' | 'planned' | 'block'

export interface ProposedSection {
  code: SectionCode
  number: string
}

export interface ProposedPlacing {
  student: StudentId
  name: string
  number: string
  ground: PlacingGround
  /** Each course with a section of it and one of each of its components. */
  placed: { course: CourseCode; credits: number; sections: ProposedSection[] }[]
  left: { course: CourseCode; refusals: Refusal[] }[]
}

export interface PlacingSection extends ProposedSection {
  course: CourseCode
  capacity: number
  taken: number
}

/** Some students of a group, those before them being placed as proposed. */
export interface PlacingPiece {
  of: number
  /** From where to go on; null where these are the last. */
  next: number | null
  students: ProposedPlacing[]
  /** The sections that are proposed in this piece, as their seats are now. */
  sections: PlacingSection[]
  /** Seats that are proposed so far, by section. */
  taken: Record<string, number>
}

export const OVERRIDE_WORDS: Record<OfficeOverride, string> = {
  notOpen: 'the opening',
  signOff: 'the sign-off',
  notAgreed: 'the terms of registration'
}

/** What is proposed for a group, in a sentence or two. */
export function placingSummary(all: readonly ProposedPlacing[]): string {
  const settled = all.filter((one) => !one.placed.length && !one.left.length).length
  const whole = all.filter((one) => one.placed.length && !one.left.length).length
  const part = all.filter((one) => one.placed.length && one.left.length).length
  const none = all.length - settled - whole - part
  const told = [
    whole && `${whole} in all that they want`,
    part && `${part} in a part of it`,
    none && `${none} in nothing`
  ].filter(Boolean)
  const fits = told.length ? `${count(all.length - settled, 'student')} to place: ${told.join(', ')}.` : ''
  const has = settled
    ? `${settled === all.length ? 'All' : settled} ${settled === 1 ? 'has' : 'have'} or ${settled === 1 ? 'waits' : 'wait'} for everything already.`
    : ''
  return [fits, has].filter(Boolean).join(' ') || 'Nobody is in this group.'
}

/** A section with the seats that it would give away. */
export interface FilledSection extends PlacingSection {
  proposed: number
}

/** Sections that are proposed to somebody, the fullest first; each section with a part that has a number of its own. */
export function filledSections(
  sections: readonly PlacingSection[],
  all: readonly ProposedPlacing[]
): FilledSection[] {
  const proposed = new Map<string, number>()
  for (const { code } of all.flatMap((one) => one.placed.flatMap((course) => course.sections)))
    proposed.set(code, (proposed.get(code) ?? 0) + 1)
  const left = ({ capacity, taken, proposed }: FilledSection) => capacity - taken - proposed
  return sections
    .map((one) => ({ ...one, proposed: proposed.get(one.code) ?? 0 }))
    .filter((one) => one.proposed)
    .sort((a, b) => left(a) - left(b) || b.proposed - a.proposed || (a.code < b.code ? -1 : 1))
}

/** Why courses are left: the first reason of each, with how many students it stands against. */
export interface LeftCourse {
  course: CourseCode
  why: string
  students: number
}

/** Why a course is left, said to an office: the seats that are proposed to others are none that anybody has taken. */
export function leftText(refusals: readonly Refusal[], zone: string): string {
  const [first] = refusals
  if (!first) return 'Nothing of it can be proposed.'
  return first.code === 'full' ? 'No seat is left in it.' : aboutThem(refusalText(first, zone))
}

export function leftCourses(all: readonly ProposedPlacing[], zone: string): LeftCourse[] {
  const found = new Map<string, LeftCourse>()
  for (const { course, refusals } of all.flatMap((one) => one.left)) {
    const why = leftText(refusals, zone)
    const key = `${course} ${why}`
    found.set(key, { course, why, students: (found.get(key)?.students ?? 0) + 1 })
  }
  return [...found.values()].sort((a, b) => b.students - a.students || (a.course < b.course ? -1 : 1))
}
