/** The demo catalog and programs, read from their files. */
import { readFileSync } from 'node:fs'
import Papa from 'papaparse'
import { Catalog, type Course, type Season } from '#core/catalog'
import { compileProgram, type ProgramSpec, type SlotSpec } from '#core/degree'
import { courseCode } from '#core/ids'
import { parseRule } from '#core/requisites'
import type { CourseListView } from '#shared/catalog/responses'
import { listsFor } from '#shared/catalog/context'

export interface DemoCourse extends Course {
  description: string
}

export interface DemoProgram extends ProgramSpec {
  obliges?: string[]
  suggested: SlotSpec[][]
}

const file = (name: string) => readFileSync(new URL(`./${name}`, import.meta.url), 'utf8')

const SEASONS: Record<string, Season> = { A: 'autumn', S: 'spring', U: 'summer' }

/** Of these only one gives credit. */
const EXCLUSIVE = [['CHEM 101', 'CHEM 115']] as const

function readCourses(): DemoCourse[] {
  const { data, errors } = Papa.parse<Record<string, string>>(file('courses.csv'), {
    header: true,
    skipEmptyLines: true
  })
  if (errors.length) throw new Error(`courses.csv, row ${errors[0]!.row}: ${errors[0]!.message}`)
  return data.map((row) => {
    const code = courseCode(row.code!)
    parseRule(row.prerequisite!)
    const number = Number.parseInt(code.split(' ')[1]!, 10)
    const [least, most] = row.credits!.split('-').map(Number)
    const graduate = number >= 500
    return {
      code,
      title: row.title!,
      credits: least!,
      creditsMost: most ?? least!,
      level: graduate ? 'graduate' : 'undergraduate',
      yearLevel: graduate ? 5 : Math.max(1, Math.floor(number / 100)),
      offered: {
        seasons: [...row.runs!].map((letter) => SEASONS[letter]!),
        years: row.years as 'every' | 'odd' | 'even'
      },
      prerequisite: row.prerequisite!,
      categories: row.categories!.split(' ').filter(Boolean),
      equivalents: [],
      exclusive: EXCLUSIVE.flatMap(([one, other]) => (one === code ? [courseCode(other)] : [])),
      repeatable: /may be repeated for credit/i.test(row.description!),
      description: row.description!
    }
  })
}

export const courses = readCourses()
export const catalog = new Catalog(courses)

/** Course lists kept once and used by several programs. */
export const lists = (JSON.parse(file('programs/lists.json')) as { lists: CourseListView[] }).lists

export const programs: DemoProgram[] = ['envd', 'heri', 'geof', 'stat-minor', 'field-ethics'].map((name) => {
  const { program } = JSON.parse(file(`programs/${name}.json`)) as { program: DemoProgram }
  compileProgram(program, { lists: listsFor(lists, program.catalogYear) })
  for (const slot of program.suggested.flat()) if (typeof slot === 'string') catalog.course(slot)
  return program
})
