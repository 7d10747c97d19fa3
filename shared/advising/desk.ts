/** Who of an advisor's students needs them, and why. */
import type { Standing } from '#core/requisites'
import type { Instant } from '#core/time'
import type { DeskRow } from './responses'

const WEEK_MS = 7 * 86_400_000

/** The student may register already, but for the sign-off. */
export function waitsAtTheGate({ adding, isBarred }: Pick<DeskRow, 'adding' | 'isBarred'>): boolean {
  return adding === 'open' && isBarred
}

/** They asked for a review of the term, and nothing speaks against signing it off as it is. */
export function isClear(row: DeskRow, term: string): boolean {
  const asked = row.reviews.some((one) => one.term === term)
  return (
    row.purpose === 'program' &&
    asked &&
    row.planned > 0 &&
    !row.findings &&
    !row.holds &&
    !row.requestsAsked &&
    !row.unread
  )
}

/** Reasons to look at a student, in order of urgency. */
export const DESK_REASONS = [
  'offer',
  'open',
  'requests',
  'soon',
  'asked',
  'words',
  'changed',
  'holds',
  'overdue',
  'late',
  'findings',
  'unplanned',
  'silent'
] as const
export type DeskReason = (typeof DESK_REASONS)[number]

export const DESK_WORDS: Record<DeskReason, string> = {
  offer: 'a seat offer runs out',
  open: 'open now, no sign-off',
  requests: 'asked for something that you decide',
  soon: 'open within a week, no sign-off',
  asked: 'asked for review',
  words: 'wrote something new',
  changed: 'changed since the sign-off',
  holds: 'held from registering',
  overdue: 'agreed and overdue',
  late: 'finish later than they want',
  findings: 'routes with findings',
  unplanned: 'nothing planned for the term',
  silent: 'never spoken with'
}

/** The same of one student, where space is short. */
export const DESK_SHORT: Record<DeskReason, string> = {
  offer: 'seat offer',
  open: 'open, no sign-off',
  requests: 'a request waits',
  soon: 'opens, no sign-off',
  asked: 'review asked',
  words: 'new words',
  changed: 'changed since sign-off',
  holds: 'hold',
  overdue: 'agreed, overdue',
  late: 'finish too late',
  findings: 'findings',
  unplanned: 'nothing planned',
  silent: 'never spoken'
}

/** How the desk is put in order, to be read there. */
export const DESK_ORDER =
  'By the most urgent reason, in the order of the boxes above; within one, what is due or was asked first; then by how many reasons there are.'

/** Whom of the desk somebody looks at, kept by a name if they like. Nothing chosen is everybody for whom there is a reason. */
export interface DeskView {
  reason: DeskReason | null
  /** The words in which the desk names the programs of a student. */
  program: string | null
  standing: Standing | null
}
export interface KeptDeskView extends DeskView {
  id: number
  name: string
}

/** The rows of a view. */
export function rowsOf(view: DeskView, rows: readonly DeskRow[], now: Instant): DeskRow[] {
  const isNarrowed = view.program !== null || view.standing !== null
  return rows.filter((row) => {
    const reasons = deskReasons(row, now)
    if (view.reason ? !reasons.some((one) => one.reason === view.reason) : !isNarrowed && !reasons.length)
      return false
    if (view.program !== null && row.programs !== view.program) return false
    return view.standing === null || row.standing === view.standing
  })
}

/** A reason that applies, and the instant that orders it among its like: when it is due, or since when it waits. */
export interface DeskWhy {
  reason: DeskReason
  at: Instant | null
}

/** Every reason that applies to a student at an instant, the most urgent first. */
export function deskReasons(row: DeskRow, now: Instant): DeskWhy[] {
  const isSoon = row.adding === 'notYet' && row.opens !== null && row.opens - now < WEEK_MS
  const applies: Record<DeskReason, boolean> = {
    offer: row.offerUntil !== null && row.offerUntil > now,
    open: waitsAtTheGate(row),
    requests: row.requestsAsked > 0,
    soon: row.isBarred && isSoon,
    asked: row.reviews.length > 0,
    words: row.unread > 0,
    changed: row.changedSince,
    holds: row.holds > 0,
    overdue: row.overdue > 0,
    late: row.late,
    findings: row.findings > 0,
    unplanned: !row.planned,
    silent: !row.spoken
  }
  const at: Partial<Record<DeskReason, Instant | null>> = {
    offer: row.offerUntil,
    open: row.opens,
    soon: row.opens,
    asked: row.reviews[0]?.askedAt ?? null
  }
  return DESK_REASONS.filter((reason) => applies[reason]).map((reason) => ({
    reason,
    at: at[reason] ?? null
  }))
}

/** Students in the order in which they need their advisor; by name where nothing tells them apart. */
export function inOrderOfNeed(rows: readonly DeskRow[], now: Instant): DeskRow[] {
  const found = rows.map((row) => {
    const reasons = deskReasons(row, now)
    const first = reasons[0]
    return {
      row,
      rank: first ? DESK_REASONS.indexOf(first.reason) : Infinity,
      at: first?.at ?? Infinity,
      many: reasons.length
    }
  })
  return found
    .sort(
      (one, other) =>
        (one.rank === other.rank ? 0 : one.rank - other.rank) ||
        (one.at === other.at ? 0 : one.at - other.at) ||
        other.many - one.many ||
        one.row.name.localeCompare(other.row.name)
    )
    .map(({ row }) => row)
}
