/** What an editor of one of our languages offers at a place of a text. */
import { subjectOf, type Catalog } from '#core/catalog'
import { STANDINGS } from '#core/requisites'

export interface Completion {
  label: string
  detail: string
}

export interface Completions {
  /** Where in the line what is completed begins. */
  from: number
  options: Completion[]
}

export interface CompletionContext {
  catalog: Catalog
  lists: readonly { name: string; title: string }[]
  /** Categories by their code. */
  categories: readonly { code: string; title: string }[]
}

const SET_WORDS: readonly Completion[] = [
  { label: 'list', detail: 'a named list' },
  { label: 'category', detail: 'courses of a category' },
  { label: 'level', detail: 'from a year level on: level 300+' },
  { label: 'undergraduate', detail: 'every undergraduate course' },
  { label: 'graduate', detail: 'every graduate course' },
  { label: 'any', detail: 'every course' },
  { label: 'or', detail: 'either set' },
  { label: 'and', detail: 'in both sets' },
  { label: 'without', detail: 'but not in this one' }
]
const RULE_WORDS: readonly Completion[] = [
  { label: 'and', detail: 'both' },
  { label: 'or', detail: 'either' },
  { label: 'of', detail: 'so many of these: 2 of (A, B, C)' },
  { label: 'with', detail: 'in the same term or before' },
  { label: 'test', detail: 'a test score: test MATH >= 70' },
  { label: 'average', detail: 'of grades: average 2.5, average 2.5 of (A, B)' },
  { label: 'standing', detail: 'from a standing on' },
  { label: 'credits', detail: 'so many earned: 60 credits' },
  { label: 'program', detail: 'those of a program' },
  { label: 'permission', detail: 'of the department' }
]

/** What may follow a text of the course-set language. */
export function setCompletions(text: string, { catalog, lists, categories }: CompletionContext): Completions {
  const named = /\b(list|category) ([a-z0-9-]*)$/.exec(text)
  if (!named) return courseCompletions(text, catalog, SET_WORDS)
  const [, kind, word = ''] = named
  const options =
    kind === 'list'
      ? lists.map(({ name, title }) => ({ label: name, detail: title }))
      : categories.map(({ code, title }) => ({ label: code, detail: title }))
  return { from: text.length - word.length, options: unique(options) }
}

/** What may follow a text of the prerequisite language. */
export function ruleCompletions(text: string, { catalog }: Pick<CompletionContext, 'catalog'>): Completions {
  const grade = /\d[A-Z]{0,2} \(([A-Z+-]*)$/.exec(text)
  if (grade) {
    const options = catalog.scale.grades.map((one) => ({ label: one.grade, detail: 'or better' }))
    return { from: text.length - grade[1]!.length, options }
  }
  const standing = /\bstanding ([a-z]*)$/.exec(text)
  if (standing)
    return {
      from: text.length - standing[1]!.length,
      options: STANDINGS.map((label) => ({ label, detail: 'or later' }))
    }
  return courseCompletions(text, catalog, RULE_WORDS)
}

/** The numbers of a subject that is named; otherwise subjects, and words of the language. */
function courseCompletions(text: string, catalog: Catalog, words: readonly Completion[]): Completions {
  const course = /\b([A-Z]{2,5}) ((?:[A-Z]?\d[\d.]*)?)$/.exec(text)
  if (course)
    return {
      from: text.length - course[2]!.length,
      options: catalog.courses
        .filter((one) => subjectOf(one.code) === course[1])
        .map(({ code, title }) => ({ label: code.slice(course[1]!.length + 1), detail: title }))
    }
  const word = /[A-Za-z]*$/.exec(text)![0]
  const subjects = [...new Set(catalog.courses.map((one) => subjectOf(one.code)))]
  return {
    from: text.length - word.length,
    options: [...subjects.map((label) => ({ label, detail: 'a subject' })), ...words]
  }
}

const unique = (options: readonly Completion[]): Completion[] => [
  ...new Map(options.map((one) => [one.label, one])).values()
]
