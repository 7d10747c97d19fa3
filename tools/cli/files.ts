/** Files of the command line: read, told apart by their format, checked. */
import { readFileSync } from 'node:fs'
import type { z } from 'zod'
import { checkCatalog, checkProgram } from '#core/checking'
import { Catalog } from '#core/catalog'
import { compileProgram, type PlannedCourse, type Program, type ProgramSpec } from '#core/degree'
import { catalogFile, limitsFile, listsFile, programFile, routeFile } from '#shared/fileShapes'
import { recordFile } from '#shared/record/recordShape'
import {
  catalogFrom,
  limitsFrom,
  programFrom,
  readFileText,
  recordFrom,
  routeFrom,
  shapeFaults,
  type CatalogContent,
  type RecordContent
} from '#shared/files'
import { recordTable, type TableValue } from '#shared/tableFiles'
import type { Carry } from '#shared/route/responses'
import { listsFor } from '#shared/catalog/context'
import { faultText } from '#shared/route/texts'
import { CallError } from './options'

export type Lists = CatalogContent['lists']

/** What is wrong, a line each: file, path, sentence. */
export class Complaints {
  readonly lines: string[] = []

  add(file: string, path: string, sentence: string): void {
    this.lines.push(`${file}${path ? `: ${path}` : ''}: ${sentence}`)
  }
}

/** @throws CallError when the file cannot be read at all. */
export function textOf(file: string): string {
  try {
    return readFileSync(file, 'utf8')
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException
    const why = code === 'ENOENT' ? 'there is no such file' : code === 'EISDIR' ? 'it is a folder' : code
    throw new CallError(`${file} cannot be read: ${why}.`, 1)
  }
}

/** The file in this shape, or undefined with what is wrong noted. */
export function shaped<T>(
  file: string,
  text: string,
  shape: z.ZodType<T>,
  complaints: Complaints
): T | undefined {
  const read = readFileText(text, shape)
  if (read.ok) return read.value
  for (const { path, message } of read.faults) complaints.add(file, path, message)
  return undefined
}

/** Whether a file is a table, by its name. */
export const isTable = (file: string) => file.toLowerCase().endsWith('.csv')

/** The same of a file that may be a table; what is wrong there is told by its row. */
export function shapedOrTable<T>(
  file: string,
  text: string,
  { shape, table }: { shape: z.ZodType<T>; table: (text: string) => TableValue },
  complaints: Complaints
): { value: T; placeOf: (path: string) => string } | undefined {
  if (!isTable(file)) {
    const value = shaped(file, text, shape, complaints)
    return value && { value, placeOf: (path) => path }
  }
  const { value, faults, rowOf } = table(text)
  for (const { path, message } of faults) complaints.add(file, path, message)
  if (faults.length) return undefined
  const read = shape.safeParse(value)
  if (read.success) return { value: read.data, placeOf: rowOf }
  for (const { path, message } of shapeFaults(read.error, value)) complaints.add(file, rowOf(path), message)
  return undefined
}

export function readCatalog(file: string, text: string, complaints: Complaints): CatalogContent | undefined {
  const shape = shaped(file, text, catalogFile, complaints)
  if (!shape) return undefined
  const content = catalogFrom(shape)
  for (const fault of checkCatalog(content.catalog)) complaints.add(file, fault.path, faultText(fault))
  return content
}

export function readLists(file: string, text: string, complaints: Complaints): Lists {
  return shaped(file, text, listsFile, complaints)?.lists ?? []
}

export function readProgram(file: string, text: string, complaints: Complaints): ProgramSpec | undefined {
  const shape = shaped(file, text, programFile, complaints)
  return shape && programFrom(shape)
}

export function readRecord(
  file: string,
  text: string,
  catalog: Catalog,
  complaints: Complaints
): RecordContent | undefined {
  const read = shapedOrTable(file, text, { shape: recordFile, table: recordTable }, complaints)
  if (!read) return undefined
  try {
    return recordFrom(read.value, catalog.scale)
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
    complaints.add(file, '', read.placeOf(error.message))
    return undefined
  }
}

export function readRoute(file: string, text: string, complaints: Complaints): PlannedCourse[] | undefined {
  const shape = shaped(file, text, routeFile, complaints)
  return shape && routeFrom(shape)
}

export function readLimits(file: string, text: string, complaints: Complaints): Carry | undefined {
  const shape = shaped(file, text, limitsFile, complaints)
  return shape && limitsFrom(shape)
}

export function judgeProgram(
  file: string,
  spec: ProgramSpec,
  { catalog, lists }: CatalogContent,
  complaints: Complaints
): Program | undefined {
  const options = { lists: listsFor(lists, spec.catalogYear), scale: catalog.scale }
  const faults = checkProgram(spec, catalog, options)
  for (const fault of faults) complaints.add(file, fault.path, faultText(fault))
  return faults.length ? undefined : compileProgram(spec, options)
}

/** One catalog out of several files. */
export function together(contents: readonly CatalogContent[], lists: Lists): CatalogContent {
  const [first] = contents
  return {
    catalog: new Catalog(
      contents.flatMap((one) => one.catalog.courses),
      first?.catalog.scale
    ),
    terms: contents.flatMap((one) => one.terms),
    lists: [...contents.flatMap((one) => one.lists), ...lists]
  }
}
