/** Any student of the institution, as the registrar finds them. */
import type { StudentId } from '#core/ids'
import type { Standing } from '#core/requisites'

export interface FoundStudent {
  id: StudentId
  /** By which they sign in. */
  account: number
  name: string
  number: string
  programs: string
  standing: Standing
  /** The title of their block; null without one. */
  block: string | null
  /** Titles of holds that stand. */
  holds: string[]
  /** A program on record that they say is wrong. */
  reported: boolean
}

export interface FoundStudents {
  students: FoundStudent[]
  /** How many fit; more than are listed where only the first are. */
  all: number
}
