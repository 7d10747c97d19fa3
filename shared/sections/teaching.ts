/** What an instructor or a department sees of its sections: who is in them and in line, and nothing else of a record. */
import type { Section } from '#core/week'

export interface InSection {
  name: string
  /** The student's number. */
  number: string
  mail: string | null
}

export interface TaughtSection {
  section: Section
  title: string
  /** By name. */
  registered: InSection[]
  /** In the order of the line. */
  waiting: InSection[]
}
