/** An opening as the registrar sees it. */
import type { StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'

/** What somebody may lack to register: each by itself, one may lack several. */
export const LACKS = ['signOff', 'hold', 'plan', 'sections'] as const
export type Lack = (typeof LACKS)[number]

export interface OpeningFigures {
  id: number
  term: TermCode
  title: string
  opens: Instant
  /** Students who may register from then on, and not before. */
  students: number
  /** Of those, who lack something. */
  unready: number
  lacks: Record<Lack, number>
  /** Its first hour; null where none of the term has been measured yet. */
  hour: OpeningHour | null
}

/** Minutes of an opening that are looked at. */
export const HOUR_MINUTES = 60

/** What happens in each minute from the opening on: of those who may register from then on. */
export interface OpeningHour {
  /** Expected from those that were measured, where it has not opened yet. */
  isMeasured: boolean
  runs: readonly number[]
  /** Seats that were taken. */
  seats: readonly number[]
}

/**
 * The hour of an opening to come, when its students behave as those of the openings that were measured.
 *
 * @returns undefined where none was measured with anybody in it
 */
export function expectedHour(
  measured: readonly { students: number; hour: Pick<OpeningHour, 'runs' | 'seats'> }[],
  students: number
): OpeningHour | undefined {
  const seen = measured.reduce((sum, one) => sum + one.students, 0)
  if (!seen || !measured.some(({ hour }) => hour.runs.some(Boolean))) return undefined
  const each = (key: 'runs' | 'seats') =>
    Array.from(
      { length: HOUR_MINUTES },
      (_, minute) => (measured.reduce((sum, { hour }) => sum + hour[key][minute]!, 0) * students) / seen
    )
  return { isMeasured: false, runs: each('runs'), seats: each('seats') }
}

/** The fullest minute of an hour, the first of several. */
export function fullestMinute(runs: readonly number[]): { minute: number; runs: number } {
  const most = Math.max(...runs)
  return { minute: runs.indexOf(most), runs: most }
}

/** What is expected of few is no whole number. */
export const runsText = (runs: number): string =>
  String(runs < 10 ? Math.round(runs * 10) / 10 : Math.round(runs))

/** Somebody of an opening who is not ready. */
export interface Unready {
  student: StudentId
  name: string
  number: string
  /** Who advises them for their program; null where nobody does. */
  advisor: string | null
  lacks: readonly Lack[]
}

/** Of how many, what they lack. */
export const LACK_WORDS: Record<Lack, string> = {
  signOff: 'no sign-off',
  hold: 'held',
  plan: 'no plan',
  sections: 'sections not picked'
}

/** What a student is told of it. */
export const LACK_SENTENCES: Record<Lack, string> = {
  signOff: 'Your advisor has not signed the term off.',
  hold: 'A hold stops you from registering; Register says who lifts it.',
  plan: 'Nothing is planned for it on your route.',
  sections: 'Not every course that you planned has its sections picked.'
}
