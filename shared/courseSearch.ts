/**
 * Finds courses as people ask for them: `envi310`, `ENVI-310`, `94` for 094, words of the title with a
 * slip in them, a whole subject, several at once with commas between.
 */
import MiniSearch from 'minisearch'
import type { Course } from '#core/catalog'
import { maybeCourseCode } from '#core/ids'

export class CourseSearch {
  private readonly index = new MiniSearch<Pick<Course, 'code' | 'title' | 'categories'>>({
    idField: 'code',
    fields: ['title', 'subject', 'categories'],
    extractField: (course, field) => {
      if (field === 'subject') return course.code.split(' ')[0]!
      if (field === 'categories') return course.categories.join(' ')
      return course[field as 'code' | 'title']
    },
    searchOptions: {
      prefix: true,
      // One slip in a word of five letters, two in one of ten.
      fuzzy: (term) => (term.length > 3 ? 0.2 : false),
      combineWith: 'AND',
      boost: { title: 2, subject: 3 }
    }
  })
  private readonly byCode: ReadonlyMap<string, Course>

  constructor(courses: readonly Course[]) {
    this.byCode = new Map(courses.map((course) => [course.code, course]))
    this.index.addAll(courses)
  }

  /** The best first, at most so many; of several questions each has its turn. */
  find(text: string, most: number): Course[] {
    const questions = text.split(',').map((one) => one.trim())
    const answers = questions.filter(Boolean).map((one) => this.answer(one, most))
    const found = new Set<Course>()
    for (let i = 0; i < most && found.size < most; i++)
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
