/**
 * Options of a course in a term: a section with one choice of each of its components, chosen and
 * registered together or not at all.
 */
import type { CourseCode, SectionCode, TermCode } from '../ids'
import type { Standing } from '../requisites'
import { clashOf, sharesClash, type Clash, type Holidays, type Meeting } from './meeting'

export const MODES = ['inPerson', 'onlineHours', 'online', 'mixed'] as const
export type Mode = (typeof MODES)[number]
export type ComponentKind = 'lecture' | 'lab' | 'tutorial' | 'seminar' | 'studio'

export interface Section {
  code: SectionCode
  course: CourseCode
  term: TermCode
  /** Number within the course: `02` of "ENVI 310-02". */
  number: string
  kind: ComponentKind
  /** The section this one is a component of. */
  parent: SectionCode | null
  session: string
  half: 'full' | 'first' | 'second' | 'other'
  campus: string
  /** Where it is held away from every campus. */
  offSite: string | null
  mode: Mode
  /** Of a range the least, until one of it is chosen. */
  credits: number
  /** The least and the most of which a student chooses; null where the credits are given. */
  creditsRange: readonly [least: number, most: number] | null
  /** What it asks for before it, where that differs from what its course asks for. */
  prerequisite: string | null
  /** The categories it counts in, where they differ from those of its course. */
  categories: readonly string[] | null
  topic: string | null
  instructors: readonly string[]
  capacity: number
  taken: number
  waitCapacity: number
  waiting: number
  block: string | null
  officeOnly: boolean
  permissionNeeded: boolean
  /** Whom it is for; null when anybody may take it. Of each list one has to apply; an empty one asks nothing. */
  onlyFor: { programs: readonly string[]; standings: readonly Standing[] } | null
  cancelled: boolean
  /** What it costs, that of its course included; a component only what it adds. */
  fee: number
  /** Seats that only some may take. */
  reserved: readonly ReservedSeats[]
  meetings: readonly Meeting[]
}

/** Seats kept for the students of a program or a block. */
export interface ReservedSeats {
  program: string | null
  block: string | null
  /** How many of them are not taken. */
  left: number
}

export interface Option {
  /** The codes of its sections, joined: names the option. */
  key: string
  course: CourseCode
  main: Section
  components: readonly Section[]
}

export function sectionsOf(option: Option): readonly Section[] {
  return [option.main, ...option.components]
}

export function meetingsOf(option: Option): Meeting[] {
  return sectionsOf(option).flatMap((section) => section.meetings)
}

/** Seats of a section that this student may take. */
export function seatsFor(
  section: Pick<Section, 'capacity' | 'taken' | 'reserved'>,
  student: { programs: readonly string[]; block: string | null }
): number {
  return Math.max(0, section.capacity - section.taken - keptForOthers(section, student))
}

/** The seats left in an option: those of its scarcest section. */
export function seatsLeft(option: Option): number {
  return Math.min(...sectionsOf(option).map((section) => section.capacity - section.taken))
}

/** Seats of a section that are kept for others than this student. */
export function keptForOthers(
  section: Pick<Section, 'reserved'>,
  student: { programs: readonly string[]; block: string | null }
): number {
  return section.reserved
    .filter(({ program, block }) =>
      program === null ? block !== student.block : !student.programs.includes(program)
    )
    .reduce((sum, { left }) => sum + left, 0)
}

/**
 * Seats of a course among its sections of one term: of each section without a parent those left, but no
 * more than its components of any kind have left together. Cancelled and overfull sections add none.
 */
export function seatsAmong(sections: readonly Section[]): { left: number; of: number } {
  const live = sections.filter((section) => !section.cancelled)
  const leftIn = (list: readonly Section[]) =>
    list.reduce((sum, one) => sum + Math.max(0, one.capacity - one.taken), 0)
  let left = 0
  let of = 0
  for (const main of live.filter((section) => section.parent === null)) {
    const parts = live.filter((section) => section.parent === main.code)
    const kinds = new Set(parts.map((part) => part.kind))
    const byKind = [...kinds].map((kind) => leftIn(parts.filter((part) => part.kind === kind)))
    left += Math.min(leftIn([main]), ...byKind)
    of += main.capacity
  }
  return { left, of }
}

/**
 * Kinds of components that a section has on offer and that are not among the sections given: one was cancelled, or came
 * later. By course; those that lack none are left out.
 */
export function missingParts(
  sections: readonly Section[],
  offer: readonly Section[]
): Map<CourseCode, ComponentKind[]> {
  const found = new Map<CourseCode, ComponentKind[]>()
  for (const main of sections) {
    if (main.parent !== null) continue
    const has = new Set(sections.filter((one) => one.parent === main.code).map((one) => one.kind))
    const kinds = offer.filter((one) => one.parent === main.code && !one.cancelled).map((one) => one.kind)
    const missing = [...new Set(kinds)].filter((kind) => !has.has(kind))
    if (missing.length) found.set(main.course, missing)
  }
  return found
}

/**
 * Every option among the sections of one term: each section without a parent, combined with one of
 * its components of each kind, where none of them clashes with another. In order of section number. Cancelled
 * sections give none.
 */
export function optionsAmong(sections: readonly Section[], holidays: Holidays = NONE): Option[] {
  const live = sections.filter((section) => !section.cancelled)
  const options: Option[] = []
  for (const main of live.filter((section) => section.parent === null).sort(byNumber)) {
    const kinds = new Map<ComponentKind, Section[]>()
    for (const part of live.filter((section) => section.parent === main.code).sort(byNumber)) {
      kinds.set(part.kind, [...(kinds.get(part.kind) ?? []), part])
    }
    let choices: Section[][] = [[]]
    for (const parts of kinds.values())
      choices = choices.flatMap((chosen) =>
        parts
          .filter(
            (part) => ![main, ...chosen].some((one) => sharesClash(one.meetings, part.meetings, holidays))
          )
          .map((part) => [...chosen, part])
      )
    for (const components of choices) {
      const key = [main, ...components].map((section) => section.code).join('+')
      options.push({ key, course: main.course, main, components })
    }
  }
  return options
}

const NONE: Holidays = new Set()

function byNumber(a: Section, b: Section): number {
  return a.number < b.number ? -1 : a.number > b.number ? 1 : 0
}

export interface OptionClash {
  with: Section
  own: Section
  clash: Clash
}

/** What an option clashes with among other sections; an option's own sections are left out. */
export function clashesWith(
  option: { course: CourseCode; sections: readonly Section[] },
  others: readonly Section[],
  holidays: Holidays
): OptionClash[] {
  const found: OptionClash[] = []
  for (const own of option.sections) {
    for (const other of others) {
      if (other.code === own.code || other.course === option.course) continue
      for (const a of own.meetings) {
        for (const b of other.meetings) {
          const clash = clashOf(a, b, holidays)
          if (clash) found.push({ with: other, own, clash })
        }
      }
    }
  }
  return found
}
