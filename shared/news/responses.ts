/** What the stream of news tells: that something changed, not what it is now. */
import type { StudentId, TermCode } from '#core/ids'

/**
 * What has changed: a student's route, the rest of their record, what only they see of it, what only
 * advisors see of it, the seats of a term, the grades or sections of a term, the campus clock, or requests that wait for
 * somebody.
 */
export type NewsKind = 'route' | 'record' | 'own' | 'advisors' | 'seats' | 'term' | 'clock' | 'requests'

export interface News {
  kind: NewsKind
  /** Null for what concerns everybody. */
  student: StudentId | null
  /** Who did it. */
  by: string | null
  /** The key of the change it comes from. */
  change: string | null
  route?: number
  /** Of the route. */
  version?: number
  term?: TermCode
}
