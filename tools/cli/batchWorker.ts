/** One worker of a batch: loads catalog and programs once, then audits the files it is given. */
import { parentPort, workerData } from 'node:worker_threads'
import { auditFile, isMet } from '#shared/degree/auditFile'
import { readTrial, termsNamed } from '#shared/degree/trial'
import type { BatchLine } from './batch'
import { Complaints, readRecord, textOf } from './files'
import { loadQuestion, type Named } from './question'

const { named, json } = workerData as { named: Named; json: boolean }
const question = loadQuestion(named, new Complaints())
if (!question) throw new Error('the catalog and the programs were read before, and cannot be read now')
const { catalog, programs, terms } = question

function line(file: string): BatchLine {
  const complaints = new Complaints()
  let text: string
  try {
    text = textOf(file)
  } catch (error) {
    return { file, line: undefined, complaints: [(error as Error).message] }
  }
  const content = readRecord(file, text, catalog, complaints)
  if (!content) return { file, line: undefined, complaints: complaints.lines }
  const { audits, attempts } = readTrial(
    content,
    programs,
    catalog,
    terms.length ? terms : termsNamed(content)
  )
  if (json)
    return {
      file,
      line: JSON.stringify({ file, ...auditFile(audits, attempts, content.name) }),
      complaints: []
    }
  const [first] = audits
  const { earned, needed } = first!.amounts
  const state = audits.every(isMet) ? 'complete' : `${earned} earned, ${needed} needed`
  return { file, line: `${file}: ${state}`, complaints: [] }
}

parentPort!.on('message', (files: string[]) => parentPort!.postMessage(files.map(line)))
