/** Who has read a student's record. */
import type { Instant, IsoDate } from '#core/time'
import type { Role } from '#shared/accounts/responses'

export const READ_PARTS = ['record', 'sheet', 'dates', 'classes', 'versions'] as const

/** What somebody read of it on a day on campus. */
export interface RecordRead {
  by: string
  role: Role
  on: IsoDate
  last: Instant
  parts: (typeof READ_PARTS)[number][]
}

export const PART_WORDS: Record<(typeof READ_PARTS)[number], string> = {
  record: 'record and route',
  sheet: 'run sheet',
  dates: 'dates',
  classes: 'classes',
  versions: 'versions of a route'
}
