/** What entries of a record share: what is asked, and what is said where nothing would change. */
import type { StudentId } from '#core/ids'
import type { Instant } from '#core/time'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { Entry } from '#shared/record/entries'

export interface At {
  who: Who
  student: StudentId
  now: Instant
  zone: string
}
export type Of<Kind extends Entry['kind']> = Extract<Entry, { kind: Kind }>
/** What stood there until now, after what it is now. */
export const before = (was: string | null) => ` (before: ${was ?? 'none'})`

/** An entry that would change nothing. */
export const hasAlready = (field: string, sentence: string) =>
  new Refused(409, 'hasAlready', sentence, [{ field, message: 'has to differ from what is on the record' }])
