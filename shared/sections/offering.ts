/** A course's sections in a term, as those who plan the offer see them. */
import type { Minutes, Weekday } from '#core/time'
import type { Section } from '#core/week'
import type { SectionRules } from './requests'

export interface OfferedCourse {
  /** Not cancelled, components included. */
  sections: Section[]
  rooms: { id: number; name: string; seats: number; campus: string }[]
  instructors: { id: number; name: string }[]
  /** What holds of each section, by its code. */
  rules: Record<string, SectionRules>
  blocks: { code: string; title: string }[]
  programs: { code: string; title: string }[]
  /** Students who have planned the course for the term and hold no seat of it. */
  wanting: number
  /** Hours that are usual in the term, at which most of those are free, the best first. */
  hours: FreeHours[]
}

export interface FreeHours {
  days: Weekday[]
  start: Minutes
  end: Minutes
  /** Of those who want it: neither a seat, a picked section nor hours that have to be kept free lie there. */
  free: number
}
