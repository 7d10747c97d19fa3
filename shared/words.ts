/** English for findings, refusals and rules: made here and nowhere else. */
import { hundredths } from '#core/grades'
import type { Role } from '#shared/accounts/responses'
import type { Season, StudyLevel } from '#core/catalog'
import type { Enrolment } from '#core/degree'
import type { Standing } from '#core/requisites'
import type { Mode, Section } from '#core/week'

export const STANDING_WORDS: Record<Standing, string> = {
  freshman: 'first year',
  sophomore: 'second year',
  junior: 'third year',
  senior: 'fourth year',
  graduate: 'graduate'
}

export const ROLE_WORDS: Record<Role, string> = {
  student: 'student',
  programAdvisor: 'program advisor',
  supportAdvisor: 'support advisor',
  registrar: "registrar's office",
  instructor: 'instructor',
  department: 'department',
  office: 'office that places holds'
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
  winter: 'winter',
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

/** With a capital letter first. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

/** `60.00` */
export const moneyText = (amount: number): string => amount.toFixed(2)

/** `2 findings`, `1 finding` */
export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`
}

export const part = (section: Section) =>
  section.kind === 'lecture' ? section.course : `${section.course} ${KIND_WORDS[section.kind]}`

export type TermNames = (code: string) => string

export const ENROLMENT_WORDS: Record<Enrolment, string> = {
  fullTime: 'full time',
  threeQuarterTime: 'three-quarter time',
  halfTime: 'half time',
  lessThanHalfTime: 'less than half time'
}

/** When in its term a section runs, where that is not all of it. */
export const HALF_WORDS: Record<Section['half'], string> = {
  full: '',
  first: 'first half',
  second: 'second half',
  other: 'dates of its own'
}

/** An average as it is compared: to hundredths, halves up. */
export const averageText = (average: number): string => (hundredths(average) / 100).toFixed(2)
