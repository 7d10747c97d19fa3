/** A thing to do, and what it is read from. */
import type { TermStanding } from '#core/calendar'
import type { Instant } from '#core/time'
import type { TermView } from '#shared/catalog/responses'
import type { CatalogContext } from '#shared/catalog/context'
import type { Reading } from '#shared/reading'
import type { StudentRecord, StudentView } from '#shared/record/responses'

export type Urgency = 'runsOut' | 'stops' | 'attention' | 'plain' | 'later'

export interface Todo {
  id: string
  urgency: Urgency
  title: string
  text: string
  when: string
  /** `to` is a place of the student's, or a spot of the page itself. */
  action?: { label: string; to: 'degree' | 'route' | 'week' | 'register' | 'degree/record' | '#program' }
}

export interface TodoQuestion {
  studentRecord: StudentRecord & Partial<Pick<StudentView, 'talk' | 'suggestions' | 'appointments'>>
  reading: Reading
  catalogContext: CatalogContext
  /** The term at work. */
  work: TermStanding<TermView> | undefined
  now: Instant
}

export const shortName = ({ name }: { name: string }) => name.replace(/ \d\d(\d\d)$/, ' $1')
