/** The pace of a student: credits earned by regular term, against that of the program and the term they aim at. */
import type { Term } from '../catalog'
import type { TermCode } from '../ids'
import type { Climb } from './climb'

/** Credits of a term for a student who takes a full load and finishes 120 in eight: common practice. */
const USUAL_CREDITS = 15

export interface Pace {
  /** Credits that count and are earned, those from elsewhere among them. */
  earned: number
  /** Regular terms, not summers, that have passed since the first with a course that counts. */
  terms: number
  /** Credits by which they are ahead of the program's pace after so many terms; below zero behind it. */
  ahead: number
  /** What they would reach by the end of the aim at their own pace so far; null without an aim, or without a term behind. */
  byAim: number | null
}

/**
 * @param climb of one program
 * @param goal credits that the program asks for
 * @param length regular terms of its suggested sequence; undefined where it has none
 * @param aim the last term that the student means to need
 * @param isOver whether the grades of a term are in, as far as its dates say
 */
export function paceOf(
  climb: Climb,
  {
    goal,
    length,
    terms,
    aim,
    isOver
  }: {
    goal: number
    length: number | undefined
    terms: readonly Term[]
    aim: TermCode | null
    isOver: (term: Term) => boolean
  }
): Pace {
  const behind = climb.points.filter((point) => isOver(point.term) && point.status === 'earned')
  const earned = behind.at(-1)?.reached ?? climb.start
  const first = behind[0]?.term
  const isRegular = (term: Term) => term.season !== 'summer'
  const passed = first
    ? terms.filter((term) => isRegular(term) && term.start >= first.start && isOver(term))
    : []
  const perTerm = programPace(goal, length)
  const end = terms.find((term) => term.code === aim)
  const left = end ? terms.filter((term) => isRegular(term) && !isOver(term) && term.start <= end.start) : []
  return {
    earned,
    terms: passed.length,
    ahead: earned - Math.min(goal, perTerm * passed.length),
    byAim: end && passed.length ? earned + ((earned - climb.start) / passed.length) * left.length : null
  }
}

/** Credits of a regular term at the pace of a program. */
export const programPace = (goal: number, length: number | undefined): number =>
  length ? goal / length : USUAL_CREDITS
