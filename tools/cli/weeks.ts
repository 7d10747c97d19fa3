/** `ridgeway weeks …`: the weeks that fit, ranked, how many there are, and why none does. */
import {
  bestWeeks,
  conflictOf,
  countWeeks,
  findQuestion,
  reliefs,
  settledGroups,
  weekOf,
  type Want
} from '#core/find'
import type { CourseCode } from '#core/ids'
import { figuresOf, sectionsOf, type Holidays, type Option, type Section } from '#core/week'
import { sectionsFrom, wantFrom, sectionsFile, wantFile } from '#shared/week/weekFiles'
import { tableText } from '#shared/tableText'
import { sectionsTable } from '#shared/tableFiles'
import { clockTime, timeField } from '#shared/when'
import { conflictText, reliefText } from '#shared/week/texts'
import { count } from '#shared/words'
import Papa from 'papaparse'
import { Complaints, shaped, shapedOrTable, textOf } from './files'
import { CallError, DONE, NOT_ALL, options } from './options'

const TOP = 50

export function weeks(args: readonly string[]): number {
  const { values } = options(args, {
    sections: { type: 'string' },
    want: { type: 'string' },
    top: { type: 'string' },
    json: { type: 'boolean' },
    csv: { type: 'boolean' }
  })
  if (values.sections === undefined) throw new CallError('Name the sections of a term with --sections.')
  if (values.want === undefined) throw new CallError('Name what is wanted with --want.')
  const top = values.top === undefined ? TOP : Number(values.top)
  if (!(Number.isInteger(top) && top >= 1 && top <= 1000))
    throw new CallError('--top has to be a whole number from 1 to 1000.')
  const complaints = new Complaints()
  const offer = shapedOrTable(
    values.sections,
    textOf(values.sections),
    { shape: sectionsFile, table: sectionsTable },
    complaints
  )
  const wanted = shaped(values.want, textOf(values.want), wantFile, complaints)
  if (!offer || !wanted) {
    for (const line of complaints.lines) console.error(line)
    return 1
  }
  const { sections, holidays } = sectionsFrom(offer.value)
  const asked = wantFrom(wanted)
  const fixed = fixedIn(sections, asked, values.want)
  const want = { ...asked, groups: settledGroups(asked.groups, (course) => fixed.has(course)) }
  const question = findQuestion(sections, want, holidays)
  const answer = answerOf(question, want, top)
  if (values.csv) console.log(tableText(asRows(answer, holidays), Papa).trimEnd())
  else if (values.json) console.log(JSON.stringify(asJson(answer), null, 2))
  else for (const line of asLines(answer, holidays)) console.log(line)
  return answer.found.weeks.length ? DONE : NOT_ALL
}

type FindQuestion = ReturnType<typeof findQuestion>

interface WeeksAnswer {
  want: Want
  question: FindQuestion
  found: ReturnType<typeof bestWeeks>
  /** How many weeks fit; undefined where they are more than can be counted exactly. */
  number: number | undefined
  /** Where none fits, proved: what cannot hold together, and what would help. */
  none:
    | { conflict: NonNullable<ReturnType<typeof conflictOf>>; relief: ReturnType<typeof reliefs> }
    | undefined
}

function answerOf(question: FindQuestion, want: Want, top: number): WeeksAnswer {
  const found = bestWeeks(question.problem, top)
  const number = countWeeks(question.problem)
  const conflict = found.weeks.length || !found.proved ? undefined : conflictOf(question.problem)
  const none = conflict && { conflict, relief: reliefs(question.problem) }
  return { want, question, found, number, none }
}

function asJson({ want, question, found, number, none }: WeeksAnswer): object {
  return {
    format: 'ridgeway weeks 1',
    ended: none ? 'none' : found.proved ? 'proved' : 'stopped',
    steps: found.steps,
    count: number ?? null,
    weeks: found.weeks.map((week) => ({
      sections: weekOf(question, week)
        .flatMap(sectionsOf)
        .map((one) => one.code),
      costs: week.costs
    })),
    ...(none && {
      conflict: namesOf(want, none.conflict),
      reliefs: none.relief.map((one) => ({ ...one, ...namesOf(want, asDemands(one.of)) }))
    })
  }
}

/** A row for each week, the best first. */
function asRows({ question, found }: WeeksAnswer, holidays: Holidays): object[] {
  return found.weeks.map((week, i) => {
    const options = weekOf(question, week)
    const sections = options.flatMap(sectionsOf)
    const { days, between, firstStart, lastEnd } = figuresOf(sections, holidays)
    return {
      week: i + 1,
      courses: options.map(nameOf).join('; '),
      sections: sections.map((one) => one.code).join(' '),
      days,
      'first start': firstStart === null ? '' : timeField(firstStart),
      'last end': lastEnd === null ? '' : timeField(lastEnd),
      'minutes between': between
    }
  })
}

function asLines({ want, question, found, number, none }: WeeksAnswer, holidays: Holidays): string[] {
  const weeks = found.weeks.map(
    (week, i) => `${String(i + 1).padStart(3)}  ${lineOf(weekOf(question, week), holidays)}`
  )
  if (none)
    return [
      ...weeks,
      conflictText(namesOf(want, none.conflict)),
      ...none.relief.map((one) => `  ${reliefText(namesOf(want, asDemands(one.of)), one.weeks)}`)
    ]
  const fit =
    number === undefined
      ? 'More weeks fit than can be counted exactly'
      : `${count(number, 'week')} fit${number === 1 ? 's' : ''}`
  const best = found.proved
    ? 'these are the best, proved'
    : `stopped after ${found.steps} steps, there may be better ones`
  return [...weeks, `${fit}; ${best}.`]
}

/** The courses of the fixed sections. @throws CallError for a section that is in no week. */
function fixedIn(sections: readonly Section[], want: Want, file: string): Set<CourseCode> {
  const wanted = new Set(want.groups.flatMap((group) => group.courses))
  const found = new Set<CourseCode>()
  for (const code of want.fixed) {
    const section = sections.find((one) => one.code === code)
    const problem = !section
      ? `there is no section ${code}`
      : section.cancelled
        ? `section ${code} is cancelled`
        : !wanted.has(section.course) &&
          `section ${code} is of ${section.course}, which is not among the courses wanted; add it to them`
    if (problem) throw new CallError(`${file}: fixed: ${problem}.`, 1)
    found.add(section!.course)
  }
  for (const { courses, take } of want.groups) {
    const here = courses.filter((course) => found.has(course))
    if (here.length > take)
      throw new CallError(
        `${file}: fixed: sections of ${here.join(' and ')} are fixed, and only ${take} of these courses is taken.`,
        1
      )
  }
  return found
}

const asDemands = ({ kind, number }: { kind: 'group' | 'kept'; number: number }) => ({
  groups: kind === 'group' ? [number] : [],
  kept: kind === 'kept' ? [number] : []
})

function namesOf(want: Want, { groups, kept }: { groups: number[]; kept: number[] }) {
  return {
    courses: groups.map((g) => {
      const { courses, take } = want.groups[g]!
      return courses.length === 1 ? courses[0]! : `${take} of ${courses.join(', ')}`
    }),
    hours: kept.map((k) => want.kept[k]!.name)
  }
}

function lineOf(week: readonly Option[], holidays: Holidays): string {
  const sections = week.flatMap(sectionsOf)
  const { days, between, firstStart, lastEnd } = figuresOf(sections, holidays)
  const hours = firstStart === null ? 'no hours' : `${clockTime(firstStart)} to ${clockTime(lastEnd!)}`
  return `${week.map(nameOf).join('  ')}   ${count(days, 'day')}, ${hours}, ${between} min between`
}

const nameOf = ({ course, main, components }: Option): string =>
  `${course}-${[main, ...components].map((one) => one.number).join('+')}`
