/** What may stand at a place of a program's text, as an editor offers it. */
import { setCompletions, type CompletionContext, type Completions } from '#shared/completions'

/** Each field with what it says, as the documentation of the format has it. */
const FIELDS: Record<string, string> = {
  id: 'its own name in this program',
  title: 'as people read it',
  measure: 'counted in courses or in credits',
  amount: 'so many courses, or credits',
  credits: 'what it stands for in totals',
  from: 'a course set',
  leastGrade: 'for each course',
  subjects: 'from at least so many subjects',
  including: 'parts from narrower sets',
  atMost: 'at most so many credits, or courses, of a set',
  perSubject: 'at most so many courses of one subject',
  courses: 'at most so many courses',
  choose: 'so many of these branches',
  of: 'the branches of a choice',
  needs: 'what has to be met',
  areas: 'the branches people talk about',
  free: 'takes what nothing else wants',
  shares: 'may count in other areas too',
  limits: 'at most so many credits, or courses, of a set count',
  grades: 'only courses with these grades',
  conditions: 'what the whole record has to be',
  asks: 'credits, average, test or milestone',
  least: 'at least so much',
  counting: 'only courses that count',
  here: 'only courses taken here',
  amongLast: 'among the last so many credits',
  best: 'an average over so many courses with the best grades',
  attempts: 'all: an average over every attempt',
  entry: 'before it may be declared',
  repeats: 'which of several attempts counts',
  mayShare: 'credits that may count in the first program too',
  obliges: 'programs that have to be taken along',
  suggested: 'term after term',
  note: 'for people'
}

const VALUES: Record<string, readonly string[]> = {
  measure: ['courses', 'credits'],
  kind: ['degree', 'minor', 'certificate'],
  asks: ['credits', 'average', 'test', 'milestone'],
  repeats: ['best', 'last', 'all'],
  free: ['true'],
  counting: ['true'],
  here: ['true']
}

/** What may follow the text of a line up to the cursor. */
export function completionsAt(line: string, context: CompletionContext): Completions | undefined {
  const field = /^\s*(?:- )*([A-Za-z]+):\s+(.*)$/.exec(line)
  if (!field) {
    const key = /^\s*(?:- )*([A-Za-z]*)$/.exec(line)
    if (!key) return undefined
    const options = Object.entries(FIELDS).map(([label, detail]) => ({ label: `${label}: `, detail }))
    return { from: line.length - key[1]!.length, options }
  }
  const [, name = '', value = ''] = field
  const begin = line.length - value.length
  if (name === 'from') {
    const of = setCompletions(value, context)
    return { ...of, from: begin + of.from }
  }
  if (name === 'suggested' || name === 'need') return undefined
  const grades = context.catalog.scale.grades.map((one) => one.grade)
  const known = name === 'leastGrade' ? grades : VALUES[name]
  return known && { from: begin, options: known.map((label) => ({ label, detail: '' })) }
}
