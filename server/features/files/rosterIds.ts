/** The ids under which rows are taken away: what is brought back is known by them. */
import { slug } from '#shared/oneRoster/rosterNames'

export const idOf = {
  institution: 'institution',
  scale: (grade: string) => `scale-${grade}`,
  campus: (code: string) => `campus-${code}`,
  department: (name: string) => `department-${slug(name)}`,
  term: (code: string) => `term-${code}`,
  session: (term: string, start: string, end: string) => `session-${term}-${start}-${end}`,
  course: (code: string) => `course-${code.replace(' ', '-')}`,
  /** Without a number it is what was taken in a course in a term. */
  class: (term: string, course: string, number = '') =>
    `class-${term}-${course.replace(' ', '-')}${number && `-${number.toUpperCase()}`}`,
  student: (number: string) => `student-${number.toUpperCase()}`,
  teacher: (mail: string) => `person-${slug(mail)}`,
  taken: (term: string, course: string, number: string) =>
    `taken-${term}-${course.replace(' ', '-')}-student-${number.toUpperCase()}`,
  final: (term: string, course: string) => `final-${term}-${course.replace(' ', '-')}`,
  grade: (term: string, course: string, number: string) =>
    `grade-${term}-${course.replace(' ', '-')}-student-${number.toUpperCase()}`
}
