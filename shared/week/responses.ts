/** What the server answers about draft weeks and hours kept free. */
import type { KeptHours, Wish } from '#core/find'
import type { CourseCode, SectionCode, TermCode } from '#core/ids'
import type { AsPicked, Section } from '#core/week'

/** One set of picked sections for a term. */
export interface DraftWeek {
  id: number
  term: TermCode
  name: string
  /** Of the draft weeks of a term one is: what the run sheet and the checks rest on. */
  goingWith: boolean
  sections: SectionCode[]
  /** Courses of which a seat was held when their sections were picked: instead of it. */
  exchanges: CourseCode[]
  /** What they were like when they were picked, by code. */
  asPicked: Record<string, AsPicked>
  /** The key of the link under which it is shared; null while it is not. */
  shareKey: string | null
  /** The student's own words about it. */
  note: string | null
}

/** Hours a student keeps free, in every term. */
export interface KeepFree extends KeptHours {
  /** Must hold; otherwise if possible. */
  hard: boolean
}

/** What a student cares about in a week. */
export interface WeekHabits {
  /** In order of weight. */
  wishes: Wish[]
  /** Whether the way from one campus to another must fit between classes. */
  travelHolds: boolean
}

/** A draft week as everybody sees it who has its link: the week, and nothing else of the record. */
export interface SharedWeek {
  institution: string
  name: string
  term: TermCode
  termName: string
  sections: Section[]
}
