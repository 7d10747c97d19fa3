/** `ridgeway check FILES…` */
import {
  Complaints,
  isTable,
  judgeProgram,
  readCatalog,
  readLists,
  readProgram,
  readRecord,
  textOf,
  together,
  type Lists
} from './files'
import { CallError, options } from './options'
import type { CatalogContent } from '#shared/files'

const KINDS = ['catalog', 'lists', 'program', 'record'] as const
type Kind = (typeof KINDS)[number]

export function check(args: readonly string[]): number {
  const { positionals: files } = options(args, {}, true)
  if (!files.length) throw new CallError('Name the files to check. "ridgeway --help" shows how to call it.')
  const complaints = new Complaints()
  const byKind = new Map<Kind, { file: string; text: string }[]>(KINDS.map((kind) => [kind, []]))
  for (const file of files) {
    const text = textOf(file)
    const kind = isTable(file) ? 'record' : kindOf(text)
    if (kind) byKind.get(kind)!.push({ file, text })
    else
      complaints.add(
        file,
        '',
        `is none of the formats ${KINDS.map((one) => `"ridgeway ${one} 1"`).join(', ')}`
      )
  }
  const lists: Lists = byKind.get('lists')!.flatMap(({ file, text }) => readLists(file, text, complaints))
  const catalogs = byKind.get('catalog')!.flatMap(({ file, text }): CatalogContent[] => {
    const content = readCatalog(file, text, complaints)
    return content ? [content] : []
  })
  const whole = together(catalogs, lists)
  const programs = byKind.get('program')!
  for (const { file, text } of programs) {
    const spec = readProgram(file, text, complaints)
    if (spec && catalogs.length) judgeProgram(file, spec, whole, complaints)
  }
  if (programs.length && !byKind.get('catalog')!.length)
    complaints.add(programs[0]!.file, '', 'no catalog is among the files, so its rules cannot be checked')
  for (const { file, text } of byKind.get('record')!) {
    const content = readRecord(file, text, whole.catalog, complaints)
    for (const { course } of catalogs.length ? (content?.record ?? []) : [])
      if (!whole.catalog.maybeCourse(course)) complaints.add(file, course, 'the catalog has no such course')
  }
  for (const line of complaints.lines) console.error(line)
  console.log(
    complaints.lines.length
      ? `${complaints.lines.length} faults in ${files.length} files.`
      : `${files.length} files, no fault.`
  )
  return complaints.lines.length ? 1 : 0
}

/** By the format a file claims; a file that is not JSON claims none. */
function kindOf(text: string): Kind | undefined {
  const claimed = /"format"\s*:\s*"ridgeway ([a-z]+) /.exec(text.slice(0, 2000))?.[1]
  return KINDS.find((kind) => kind === claimed)
}
