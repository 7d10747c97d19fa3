/**
 * Typed names of things. A plain string or number becomes one only here, through a function that
 * checks it, so that a section code can never be passed where a course code is expected.
 */
declare const brand: unique symbol
type Branded<Base, Name extends string> = Base & { readonly [brand]: Name }

/** Subject letters, a space and a number, e.g. `ENVI 310`, `CHEM 015L`, `MATH 10.101`, `ENGL F21A`. */
export type CourseCode = Branded<string, 'CourseCode'>
/** The institution's own name of a term in short, e.g. `AU27`, `WI28`, `2028S1`. */
export type TermCode = Branded<string, 'TermCode'>
/** Five characters, the last one a check character. */
export type SectionCode = Branded<string, 'SectionCode'>
export type StudentId = Branded<number, 'StudentId'>

/** A course number as part of a pattern: up to four digits, maybe with a second part, a letter before, letters behind. */
export const COURSE_NUMBER = String.raw`[A-Za-z]?\d{1,4}(?:\.\d{1,3})?[A-Za-z]{0,2}`
/** As it is written everywhere but where somebody types: in capitals, of at most twelve characters. */
export const COURSE_CODE = /^(?=.{1,12}$)[A-Z]{2,5} [A-Z]?\d{1,4}(?:\.\d{1,3})?[A-Z]{0,2}$/
/** A number that begins with a letter is set apart from the subject. */
const COURSE = new RegExp(String.raw`^([A-Za-z]{2,5})(?:[\s\-_]+|(?=\d))(${COURSE_NUMBER})$`)
/** Two to eight capital letters and digits, a digit among them. */
export const TERM_CODE = /^(?=[A-Z]*\d)[A-Z\d]{2,8}$/

/** Reads `envi310`, `ENVI-310` or `ENVI 310` as `ENVI 310`; undefined when it is none of these. */
export function maybeCourseCode(text: string): CourseCode | undefined {
  const found = COURSE.exec(text.trim())
  const code = found ? `${found[1]} ${found[2]}`.toUpperCase() : ''
  return COURSE_CODE.test(code) ? (code as CourseCode) : undefined
}

/** @throws RangeError when the text is not a course code. */
export function courseCode(text: string): CourseCode {
  const code = maybeCourseCode(text)
  if (!code) throw new RangeError(`expected a course code such as "ENVI 310", got "${text}"`)
  return code
}

export const maybeTermCode = (text: string): TermCode | undefined =>
  TERM_CODE.test(text) ? (text as TermCode) : undefined

/** @throws RangeError when the text is not a term code such as `AU27`. */
export function termCode(text: string): TermCode {
  if (!TERM_CODE.test(text)) throw new RangeError(`expected a term code such as "AU27", got "${text}"`)
  return text as TermCode
}

/** @throws RangeError unless a positive whole number. */
export function studentId(value: number): StudentId {
  if (!Number.isInteger(value) || value <= 0) throw new RangeError(`expected a student id, got ${value}`)
  return value as StudentId
}
