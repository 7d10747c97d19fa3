/** What the server answers about a term's sections: what they are, and apart from it their seats. */
import type { Section } from '#core/week'

type Seats = 'capacity' | 'taken' | 'waiting' | 'cancelled' | 'reserved'

/** What changes while students register. */
export type SectionSeats = Pick<Section, 'code' | Seats>

export type SectionWithoutSeats = Omit<Section, Seats>

/** What somebody could register in place of a section that they lost or that moved away, with its components. */
export interface SectionInstead {
  section: string
  code: string
  hours: string
}
