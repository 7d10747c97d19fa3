/** Sections as people type them: codes, or numbers within a course; several at once, in any order. */
import { parseSectionCode, type SectionCodeFault } from '#core/formats'
import { COURSE_NUMBER, maybeCourseCode, type CourseCode } from '#core/ids'
import { optionsAmong, type ComponentKind, type Option, type Section } from '#core/week'
import { KIND_WORDS } from '#shared/words'
import { sectionName } from '#shared/week/texts'

/** Sections of a term in which a typed one is looked for. */
export interface TypedTerm {
  name: string
  sections: readonly Section[]
}

export interface Typed {
  /** What can be had, one choice for each course. */
  options: Option[]
  /** What cannot, as it was typed, with why and what to type instead. */
  faults: { text: string; why: string }[]
}

const FAULTS: Record<SectionCodeFault, string> = {
  length: 'is neither a section code of five characters nor a number such as ENVI 310-02.',
  character: 'has a character that no section code has: 0, O, 1 and I are left out of them.',
  check: 'is mistyped: its last character does not fit the others.'
}
/** A course with a number of one of its sections: `ENVI 310-02`, `soil220-01a`. */
const NUMBERED = new RegExp(String.raw`([a-z]{2,5})(?:\s+|(?=\d))(${COURSE_NUMBER})\s*[-–]\s*(\w{1,6})`, 'gi')

/**
 * Reads what was typed against the sections of one term; a code of another one is said to be of that. A component
 * implies its section; a section that has components needs one of each kind typed, unless there is only one.
 */
export function readTyped(text: string, term: TypedTerm, others: readonly TypedTerm[] = []): Typed {
  const faults: Typed['faults'] = []
  const found = new Map<string, { section: Section; text: string }>()
  for (const written of tokensOf(text)) {
    const section = find(written, term.sections)
    const elsewhere = section ? undefined : others.find((other) => find(written, other.sections))
    const fault = section
      ? faultOf(section)
      : elsewhere
        ? isOf(written, elsewhere, term)
        : unknown(written, term)
    if (fault) faults.push({ text: written.text, why: fault })
    else found.set(section!.code, { section: section!, text: written.text })
  }
  const options: Option[] = []
  const courses = new Set([...found.values()].map((one) => one.section.course))
  for (const course of courses) {
    const typed = [...found.values()].filter((one) => one.section.course === course)
    const choice = choose(
      typed.map((one) => one.section),
      term.sections
    )
    if (typeof choice === 'string')
      faults.push({ text: typed.map((one) => one.text).join(', '), why: choice })
    else options.push(choice)
  }
  return { options, faults }
}

type Written =
  | { text: string; code: string }
  | { text: string; course: CourseCode | undefined; number: string }

function tokensOf(text: string): Written[] {
  const numbered = [...text.matchAll(NUMBERED)].map(([whole, subject, number, section]): Written => ({
    text: whole.trim(),
    course: maybeCourseCode(`${subject!.toUpperCase()} ${number!.toUpperCase()}`),
    number: section!.toUpperCase()
  }))
  const rest = text
    .replace(NUMBERED, ' ')
    .split(/[\s,;+]+/)
    .filter(Boolean)
  return [...numbered, ...new Set(rest.map((one) => one.toUpperCase()))].map((one) =>
    typeof one === 'string' ? { text: one, code: one } : one
  )
}

function find(written: Written, sections: readonly Section[]): Section | undefined {
  if ('code' in written) {
    const read = parseSectionCode(written.code)
    return read.ok ? sections.find((one) => one.code === read.code) : undefined
  }
  const { course, number } = written
  const own = sections.filter((one) => one.course === course)
  return own.find((one) => one.number === number) ?? own.find((one) => one.number === number.padStart(2, '0'))
}

function faultOf(section: Section): string | undefined {
  if (section.cancelled) return `${sectionName(section)} was cancelled.`
  return section.officeOnly ? `Only an office places students in ${sectionName(section)}.` : undefined
}

const isOf = ({ text }: Written, other: TypedTerm, term: TypedTerm) =>
  `${text} is a section of ${other.name}; this sheet is of ${term.name}.`

function unknown(written: Written, term: TypedTerm): string {
  if ('code' in written) {
    const read = parseSectionCode(written.code)
    return `${written.text} ${read.ok ? `is no section of ${term.name}.` : FAULTS[read.fault]}`
  }
  return `${term.name} has no section ${written.text}.`
}

/** The one choice that typed sections of a course make; else what is wrong with them. */
function choose(typed: readonly Section[], offer: readonly Section[]): Option | string {
  const mains = new Set(typed.map((one) => one.parent ?? one.code))
  const main = offer.find((one) => one.code === [...mains][0])
  if (mains.size > 1 || !main)
    return `These are several choices of ${typed[0]!.course}; a course is taken once. Leave one of them.`
  const family = offer.filter((one) => one.code === main.code || one.parent === main.code)
  const wanted = typed.filter((one) => one.parent !== null)
  const fitting = optionsAmong(family).filter((option) =>
    wanted.every((one) => option.components.includes(one))
  )
  if (fitting.length === 1) return fitting[0]!
  if (!fitting.length) return `These sections of ${main.course} do not go together.`
  const chosen = new Set<ComponentKind>(wanted.map((one) => one.kind))
  const open = family.find((one) => one.parent !== null && !chosen.has(one.kind))!
  const choices = family.filter((one) => one.kind === open.kind && one.parent !== null && !one.cancelled)
  return `${sectionName(main)} needs a ${KIND_WORDS[open.kind]} as well: type ${choices.map((one) => one.code).join(' or ')}.`
}
