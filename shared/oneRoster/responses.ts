/** What the page of files shows of sets that were brought. */
import type { Instant } from '#core/time'
import type { RosterChange, RosterItem } from './plan'
import type { RosterFault, RosterFile } from './read'
import type { Table } from './tables'

export type RosterCounts = Partial<Record<Table, Partial<Record<RosterChange, number>>>>

/** Files in our own formats, some at a time. */
export interface OwnFiles {
  files: RosterFile[]
  /** The student after whom it goes on; null where these are the last. */
  next: number | null
}

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
