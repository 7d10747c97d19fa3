/** `ridgeway fill …`: the rest of a degree filled in. */
import { fillMending, fillQuestion, type FillAnswer } from '#core/fill'
import { conflictOf, proposalOf, type Filled } from '#wire/filling'
import { becauseText, endedText } from '#wire/words'
import { readCall } from './route'

/** What the command prints with `--json`. */
interface ProposalFile {
  format: 'ridgeway proposal 1'
  ended: 'proved' | 'feasible' | 'impossible' | 'unknown'
  steps: number
  finish: string | null
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
}

export function fill(args: readonly string[]): number {
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
  const answer = fillMending(question.problem)
  const proposal = proposalOf(question, answer, planned, (all) => {
    const then = contextWith(all)
    return { audits: [...then.audits], context: then }
  })
  const conflict = conflictOf(question, answer).map((result) => result.need.title)
  if (values.json) console.log(JSON.stringify(fileOf(answer, proposal, conflict), null, 2))
  else {
    for (const one of proposal?.courses ?? [])
      console.log(
        `${one.planned.term}  ${one.planned.course.padEnd(10)} ${String(one.planned.credits).padStart(4)}  ${becauseText(one)}`
      )
    console.log(endedText(answer.kind, proposal, conflict, answer.steps))
  }
  return proposal ? 0 : 1
}

function fileOf(answer: FillAnswer, proposal: Filled | undefined, conflict: string[]): ProposalFile {
  return {
    format: 'ridgeway proposal 1',
    ended: answer.kind !== 'filled' ? answer.kind : answer.proved ? 'proved' : 'feasible',
    steps: answer.steps,
    finish: proposal?.finish.code ?? null,
    bound: proposal?.bound.code ?? null,
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
    left: proposal?.left ?? [],
    conflict
  }
}
