/** What the page of files shows of sets that were brought. */
import type { Instant } from '#core/time'
import type { RosterChange, RosterItem } from './plan'
import type { RosterFault } from './read'
import type { Table } from './tables'

export type RosterCounts = Partial<Record<Table, Partial<Record<RosterChange, number>>>>

export interface ImportRow {
  id: number
  name: string
  state: 'planned' | 'applied' | 'undone'
  by: string
  at: Instant
  counts: RosterCounts
  faults: number
}

export interface ImportPage extends Omit<ImportRow, 'faults'> {
  faults: RosterFault[]
  /** Lines that change something or are left as they are: a page of them. */
  items: RosterItem[]
  page: number
  pages: number
  /** How many there are of these. */
  all: number
}
