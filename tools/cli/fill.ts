/** `ridgeway fill …`: the rest of a degree filled in. */
import loadHighs from 'highs'
import type { PlannedCourse } from '#core/degree'
import { fillQuestion, type FillAnswer } from '#core/fill'
import { filledOf, type Filled } from '#shared/route/filling'
import { solverOf } from '#shared/route/solver'
import { becauseText, endedText } from '#shared/route/fillingTexts'
import { DONE, NOT_ALL } from './options'
import { readCall } from './route'

/** What the command prints with `--json`. */
interface ProposalFile {
  format: 'ridgeway proposal 1'
  ended: 'proved' | 'feasible' | 'impossible' | 'unknown'
  /** Models solved. */
  models: number
  finish: string | null
  /** In the order in which fillings are compared, whether a better one is excluded; null where not everything is met. */
  order: Record<'finish' | 'findings' | 'courses' | 'laying', 'proved' | 'best found'> | null
  /** No finish is earlier than this term. */
  bound: string | null
  courses: {
    course: string
    term: string
    credits: number
    needs: string[]
    before: string[]
    because: string
  }[]
  left: string[]
  /** Needs that cannot be met together. */
  conflict: string[]
  /** No fewer needs are in conflict. */
  smallestConflict: boolean
}

export async function fill(args: readonly string[]): Promise<number> {
  const call = readCall(args)
  if (Array.isArray(call)) {
    for (const line of call) console.error(line)
    return 1
  }
  const { values, planned, contextWith } = call
  const context = contextWith(planned)
  const question = fillQuestion(context, {
    summers: values.summers,
    subjects: new Set(values.prefer.map((subject) => subject.toUpperCase())),
    level: context.student.standing === 'graduate' ? 'graduate' : 'undergraduate'
  })
  const reread = (all: readonly PlannedCourse[]) => {
    const then = contextWith(all)
    return { audits: [...then.audits], context: then }
  }
  const { answer, proposal } = filledOf(question, planned, reread, { solve: solverOf(await loadHighs()) })
  if (values.json) console.log(JSON.stringify(fileOf(answer, proposal), null, 2))
  else {
    for (const one of proposal?.courses ?? [])
      console.log(
        `${one.planned.term}  ${one.planned.course.padEnd(10)} ${String(one.planned.credits).padStart(4)}  ${becauseText(one)}`
      )
    console.log(endedText(proposal))
  }
  return answer.kind === 'filled' ? DONE : NOT_ALL
}

const said = (proved: boolean) => (proved ? 'proved' : 'best found')

function fileOf(answer: FillAnswer, proposal: Filled | undefined): ProposalFile {
  const ended = () => {
    if (answer.kind === 'unknown') return 'unknown'
    // A need that only courses taken again can meet: each is filled in once.
    if (answer.kind === 'partly') return answer.proved && !proposal?.again.length ? 'impossible' : 'unknown'
    return proposal?.proved ? 'proved' : 'feasible'
  }
  return {
    format: 'ridgeway proposal 1',
    ended: ended(),
    models: answer.models,
    finish: proposal?.finish?.code ?? null,
    order: proposal?.better
      ? {
          finish: said(proposal.proved),
          findings: said(proposal.better.findings),
          courses: said(proposal.better.courses),
          laying: said(proposal.better.laying)
        }
      : null,
    bound: proposal?.bound?.code ?? null,
    courses: (proposal?.courses ?? []).map(
      ({ planned: { course, term, credits }, needs, before, because }) => ({
        course,
        term,
        credits,
        needs,
        before,
        because
      })
    ),
    left: (proposal?.left ?? []).map((one) => one.need.title),
    conflict: proposal?.conflict ?? [],
    smallestConflict: answer.kind === 'partly' && answer.smallest && !proposal?.again.length
  }
}
