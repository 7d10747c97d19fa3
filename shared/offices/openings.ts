/** An opening as the registrar sees it. */
import type { TermCode } from '#core/ids'
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
