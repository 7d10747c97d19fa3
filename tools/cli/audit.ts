/** `ridgeway audit …`: one record, or a folder of them. */
import Papa from 'papaparse'
import { auditFile, auditRows } from '#shared/degree/auditFile'
import { readTrial, termsNamed } from '#shared/degree/trial'
import { tableText } from '#shared/tableText'
import { batch } from './batch'
import { Complaints, readRecord, textOf } from './files'
import { CallError, options } from './options'
import { loadQuestion } from './question'
import { tree } from './tree'

export async function audit(args: readonly string[]): Promise<number> {
  const { values } = options(args, {
    catalog: { type: 'string', multiple: true },
    program: { type: 'string', multiple: true },
    lists: { type: 'string', multiple: true },
    record: { type: 'string' },
    batch: { type: 'string' },
    workers: { type: 'string' },
    json: { type: 'boolean' },
    csv: { type: 'boolean' }
  })
  const { catalog, program, lists = [], record, batch: folder, json = false, csv = false } = values
  if (!catalog?.length) throw new CallError('Name a catalog with --catalog.')
  if (!program?.length) throw new CallError('Name a program with --program.')
  if ((record === undefined) === (folder === undefined))
    throw new CallError('Name one record with --record, or a folder of them with --batch.')
  const named = { catalogs: catalog, programs: program, lists }
  const complaints = new Complaints()
  const question = loadQuestion(named, complaints)
  if (!question) return told(complaints)
  if (folder !== undefined) return batch(folder, named, { json, workers: values.workers })
  const { catalog: courses, programs, terms } = question
  const content = readRecord(record!, textOf(record!), courses, complaints)
  if (!content) return told(complaints)
  const { audits, attempts, unknown } = readTrial(
    content,
    programs,
    courses,
    terms.length ? terms : termsNamed(content)
  )
  const file = auditFile(audits, attempts, content.name)
  if (csv) console.log(tableText(auditRows(file), Papa).trimEnd())
  else console.log(json ? JSON.stringify(file, null, 2) : tree(file))
  for (const code of unknown) console.error(`${record}: the catalog has no course ${code}; it counts nowhere`)
  return 0
}

function told(complaints: Complaints): number {
  for (const line of complaints.lines) console.error(line)
  return 1
}
