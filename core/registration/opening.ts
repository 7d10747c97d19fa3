import type { TermCode } from '../ids'
import type { Standing } from '../requisites'
import type { Instant } from '../time'

export interface Opening {
  term: TermCode
  title: string
  opens: Instant
  /** Whom it is for; an empty list asks nothing, a student named is always meant. */
  standings: readonly Standing[]
  programs: readonly string[]
  blocks: readonly string[]
  /** Credits that have to be earned; null asks for none. */
  creditsLeast: number | null
  students: readonly number[]
}

export interface OpeningPerson {
  id: number
  standing: Standing
  programs: readonly string[]
  block: string | null
  /** Credits earned, here and elsewhere. */
  credits: number
}

/** The earliest opening of a term that is for this person; undefined when none is. */
export function openingFor(
  person: OpeningPerson,
  term: TermCode,
  openings: readonly Opening[]
): Opening | undefined {
  return openings
    .filter((opening) => opening.term === term && isFor(opening, person))
    .sort((a, b) => a.opens - b.opens)[0]
}

function isFor(opening: Opening, person: OpeningPerson): boolean {
  if (opening.students.length) return opening.students.includes(person.id)
  return (
    (!opening.standings.length || opening.standings.includes(person.standing)) &&
    (!opening.programs.length || opening.programs.some((p) => person.programs.includes(p))) &&
    (!opening.blocks.length || (person.block !== null && opening.blocks.includes(person.block))) &&
    person.credits >= (opening.creditsLeast ?? 0)
  )
}
