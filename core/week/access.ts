/** Whom a section is open to, seats and hours aside: the one place that says so. */
import type { SectionCode } from '../ids'
import type { Standing } from '../requisites'
import type { Holidays } from './meeting'
import { optionsAmong, sectionsOf, type Option, type Section } from './option'

/** What a permission sets aside, and nothing else. */
export const PERMISSION_KINDS = [
  'prerequisite',
  'corequisite',
  'clash',
  'full',
  'reserved',
  'restriction',
  'load',
  'consent',
  'late'
] as const
export type PermissionKind = (typeof PERMISSION_KINDS)[number]
/** The permissions that somebody has at an instant, by the section they are for. */
export type Permissions = ReadonlyMap<SectionCode, ReadonlySet<PermissionKind>>

/** Whether a rule is set aside for a section, or for any of several. */
export function permits(
  permissions: Permissions,
  kind: PermissionKind,
  ...sections: readonly SectionCode[]
): boolean {
  return sections.some((section) => permissions.get(section)?.has(kind))
}

/** Somebody who wants a section, as far as its restrictions ask. */
export interface SectionTaker {
  programs: readonly string[]
  standing: Standing
  permissions: Permissions
}

/** What keeps somebody out of a section whatever its seats. */
export type Barrier =
  | { code: 'officeOnly'; section: SectionCode }
  | { code: 'notForYou'; section: SectionCode; programs: readonly string[]; standings: readonly Standing[] }
  | { code: 'permission'; section: SectionCode }

/** Every barrier of a section; of its lists of programs and standings one has to apply, an empty one asks nothing. */
export function barriersOf(
  { code, officeOnly, onlyFor, permissionNeeded }: Section,
  { programs, standing, permissions }: SectionTaker
): Barrier[] {
  const found: Barrier[] = []
  if (officeOnly) found.push({ code: 'officeOnly', section: code })
  if (onlyFor && !permits(permissions, 'restriction', code)) {
    const inProgram = !onlyFor.programs.length || onlyFor.programs.some((one) => programs.includes(one))
    const inStanding = !onlyFor.standings.length || onlyFor.standings.includes(standing)
    if (!inProgram || !inStanding)
      found.push({
        code: 'notForYou',
        section: code,
        programs: onlyFor.programs,
        standings: onlyFor.standings
      })
  }
  if (permissionNeeded && !permits(permissions, 'consent', code))
    found.push({ code: 'permission', section: code })
  return found
}

/** Of sections, those that somebody may take with all that belongs to them, and those they hold. */
export function sectionsFor(
  sections: readonly Section[],
  taker: SectionTaker,
  held: ReadonlySet<SectionCode>,
  holidays: Holidays
): Section[] {
  const may = new Set(optionsFor(sections, taker, holidays).flatMap(sectionsOf))
  return sections.filter((one) => held.has(one.code) || may.has(one))
}

/** The options among the sections of a course that somebody may take, seats and hours aside. */
export function optionsFor(
  sections: readonly Section[],
  taker: SectionTaker,
  holidays: Holidays = new Set()
): Option[] {
  return optionsAmong(sections, holidays).filter((option) =>
    sectionsOf(option).every((section) => !barriersOf(section, taker).length)
  )
}
