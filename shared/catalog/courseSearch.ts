/**
 * Finds courses as people ask for them: `envi310`, `ENVI-310`, `94` for 094, words of the title, the
 * description or a topic with a slip in them, an instructor, a whole subject, several with commas between.
 */
import MiniSearch from 'minisearch'
import { subjectOf, type Course } from '#core/catalog'
import { maybeCourseCode } from '#core/ids'
import type { Section } from '#core/week'

/** What is known of a course beside the course itself. */
export interface CourseWords {
  /** The subject's name. */
  subject?: string | undefined
  description?: string | undefined
  topics?: readonly string[] | undefined
  instructors?: readonly string[] | undefined
}

interface Entry extends CourseWords {
  course: Course
}

/** Entries indexed at once; between two lots the page may do something else. */
const LOT = 250

export class CourseSearch {
  private readonly index = new MiniSearch<Entry>({
    idField: 'code',
    fields: ['title', 'subject', 'categories', 'topics', 'instructors', 'description'],
    extractField: ({ course, ...words }, field) => {
      switch (field) {
        case 'code':
          return course.code
        case 'title':
          return course.title
        case 'categories':
          return course.categories.join(' ')
        case 'subject':
          return `${subjectOf(course.code)} ${words.subject ?? ''}`
        case 'description':
          return words.description ?? ''
        default:
          return (words[field as 'topics' | 'instructors'] ?? []).join(' ')
      }
    },
    searchOptions: {
      fields: ['title', 'subject', 'categories', 'topics', 'instructors', 'description'],
      prefix: true,
      // One slip in a word of five letters, two in one of ten.
      fuzzy: (term) => (term.length > 3 ? 0.2 : false),
      combineWith: 'AND',
      boost: { title: 3, subject: 4, topics: 2, instructors: 2, description: 0.5 }
    }
  })
  private readonly byCode = new Map<string, Course>()

  constructor(courses: readonly Course[], words: (course: Course) => CourseWords = () => ({})) {
    this.add(courses, words)
  }

  /** The same, made lot by lot: between two of them `rest` may let others work. */
  static async make(
    courses: readonly Course[],
    words: (course: Course) => CourseWords,
    rest: () => Promise<unknown>
  ): Promise<CourseSearch> {
    const search = new CourseSearch([])
    for (let from = 0; from < courses.length; from += LOT) {
      search.add(courses.slice(from, from + LOT), words)
      await rest()
    }
    return search
  }

  private add(courses: readonly Course[], words: (course: Course) => CourseWords): void {
    for (const course of courses) this.byCode.set(course.code, course)
    this.index.addAll(courses.map((course) => ({ course, ...words(course) })))
  }

  /** The best first, at most so many; of several questions each has its turn. */
  find(text: string, most: number): Course[] {
    const questions = text.split(',').map((one) => one.trim())
    const answers = questions.filter(Boolean).map((one) => this.answer(one, most))
    const found = new Set<Course>()
    const longest = Math.max(0, ...answers.map((answer) => answer.length))
    for (let i = 0; i < longest && found.size < most; i++)
      for (const answer of answers) {
        const course = answer[i]
        if (course && found.size < most) found.add(course)
      }
    return [...found]
  }

  private answer(text: string, most: number): Course[] {
    const code = maybeCourseCode(text)
    const exact = code && this.byCode.get(code)
    const close = this.byNumber(text)
    const words = this.index.search(text, { boostDocument: (id) => (String(id).includes(' 0') ? 0.9 : 1) })
    const all = [...(exact ? [exact] : []), ...close, ...words.map((hit) => this.byCode.get(String(hit.id))!)]
    return [...new Set(all)].slice(0, most)
  }

  /** Courses whose code begins like the text, or whose number is the text, leading zeros aside. */
  private byNumber(text: string): Course[] {
    const squeezed = text.replace(/[\s-]/g, '').toUpperCase()
    if (!squeezed) return []
    const number = squeezed.replace(/^0+/, '')
    const begins: Course[] = []
    const numbered: Course[] = []
    for (const course of this.byCode.values()) {
      const [subject, own] = course.code.split(' ') as [string, string]
      if (
        `${subject}${own}`.startsWith(squeezed) ||
        `${subject}${own.replace(/^0+/, '')}`.startsWith(squeezed)
      )
        begins.push(course)
      else if (own.replace(/^0+/, '') === number) numbered.push(course)
    }
    return [...begins, ...numbered]
  }
}

/** Topics and instructors of the sections of each course, each once. */
export function wordsOfOffer(
  sections: readonly Pick<Section, 'course' | 'topic' | 'instructors'>[]
): Map<string, { topics: string[]; instructors: string[] }> {
  const found = new Map<string, { topics: Set<string>; instructors: Set<string> }>()
  for (const { course, topic, instructors } of sections) {
    const one = found.get(course) ?? { topics: new Set(), instructors: new Set() }
    if (topic) one.topics.add(topic)
    for (const name of instructors) one.instructors.add(name)
    found.set(course, one)
  }
  return new Map(
    [...found].map(([course, one]) => [
      course,
      { topics: [...one.topics], instructors: [...one.instructors] }
    ])
  )
}
