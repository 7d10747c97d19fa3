/** The figures people act on. Each is worked out here and nowhere else, so that it is the same wherever it stands. */
import type { Term } from '#core/catalog'
import type { Amounts, Audit, NeedResult } from '#core/degree'
import { termLoad, termsToPlan } from '#core/route'
import type { TermView } from '#shared/catalog/responses'
import type { Reading } from '#shared/reading'
import { count, creditsText } from '#shared/words'

/** Credits of a program, by how firmly they are there. The parts add up to `credits` and `beyond`. */
export interface ProgramFigures extends Pick<Amounts, 'earned' | 'gradesDue' | 'underWay' | 'needed'> {
  code: string
  shortTitle: string
  kind: Audit['program']['spec']['kind']
  /** What the program asks for. */
  credits: number
  /** Registered in terms to come, and planned. */
  ahead: number
  /** Credits that count although the program asks for no more: courses that are larger than what they are for. */
  beyond: number
}

export function programFigures({ program, amounts }: Pick<Audit, 'program' | 'amounts'>): ProgramFigures {
  const { code, shortTitle, kind, credits } = program.spec
  const { earned, gradesDue, underWay, registered, planned, needed } = amounts
  const ahead = registered + planned
  const all = earned + gradesDue + underWay + ahead + needed
  return {
    code,
    shortTitle,
    kind,
    credits,
    earned,
    gradesDue,
    underWay,
    ahead,
    needed,
    beyond: Math.max(0, all - credits)
  }
}

/** `48 earned · 15 under way · 40 ahead · 17 needed`, with what is due or beyond the program where there is any. */
export function programText({
  earned,
  gradesDue,
  underWay,
  ahead,
  needed,
  beyond,
  kind
}: ProgramFigures): string {
  return [
    `${earned} earned`,
    ...(gradesDue ? [`${gradesDue} with grades due`] : []),
    `${underWay} under way`,
    `${ahead} ahead`,
    ...(needed ? [`${needed} needed`] : []),
    ...(beyond ? [`${creditsText(beyond)} beyond the ${kind}`] : [])
  ].join(' · ')
}

/** Credits that programs need and that have no place on the route yet. */
export const neededOf = ({ programs }: { programs: readonly ProgramFigures[] }): number =>
  programs.reduce((sum, one) => sum + one.needed, 0)

/** The same in words: of what gives no credits, how many requirements; empty where everything has a place. */
export function unplacedText({ programs, open }: Pick<RouteFigures, 'programs' | 'open'>): string {
  const needed = neededOf({ programs })
  if (needed) return creditsText(needed)
  return open ? count(open, 'requirement') : ''
}

export interface RouteFigures {
  /** Of each program, the degree first. */
  programs: ProgramFigures[]
  /** The term at whose end all programs are complete; undefined while anything is needed. */
  finish: TermView | undefined
  /** Requirements that are met neither by what is on the record nor by the route. */
  open: number
  findings: number
  /** Credits of courses that count in no program. */
  outside: number
  /** Credits of the fullest term to come. */
  busiest: number
}

const isOpen = ({ state }: Pick<NeedResult, 'state'>) => state === 'needed'

export function routeFigures({
  audits,
  finish,
  findings,
  outside,
  attempts,
  context
}: Pick<Reading, 'audits' | 'finish' | 'findings' | 'outside' | 'attempts' | 'context'>): RouteFigures {
  const load = (term: Term) => termLoad(attempts, term.code)
  return {
    programs: audits.map(programFigures),
    finish,
    open: audits.flatMap(({ areas }) => areas.flatMap(({ needs }) => needs)).filter(isOpen).length,
    findings: findings.length,
    outside: outside.reduce((sum, one) => sum + one.attempt.credits, 0),
    busiest: Math.max(0, ...termsToPlan(context).map(load))
  }
}
