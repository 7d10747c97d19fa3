/** Many records at once: worker threads take file after file; results are printed as they come. */
import { readdirSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { CallError } from './options'
import type { Named } from './question'

export interface BatchLine {
  file: string
  /** The line to print; undefined when the record could not be read. */
  line: string | undefined
  complaints: string[]
}

/** Files given to a worker at a time. */
const HANDFUL = 25
const WORKERS_MOST = 32

export async function batch(
  folder: string,
  named: Named,
  { json, workers }: { json: boolean; workers: string | undefined }
): Promise<number> {
  let names: string[]
  try {
    names = readdirSync(folder)
      .filter((name) => name.endsWith('.json'))
      .sort()
  } catch {
    throw new CallError(`${folder} is not a folder that can be read.`, 1)
  }
  if (!names.length) throw new CallError(`${folder} holds no .json file.`, 1)
  const count = workers === undefined ? availableParallelism() : Number(workers)
  if (!(Number.isInteger(count) && count >= 1 && count <= WORKERS_MOST))
    throw new CallError(`--workers has to be a whole number from 1 to ${WORKERS_MOST}.`)
  let next = 0
  let done = 0
  let faulty = 0
  const take = () => names.slice(next, (next += HANDFUL)).map((name) => join(folder, name))
  const print = ({ line, complaints }: BatchLine) => {
    done++
    if (line !== undefined) process.stdout.write(`${line}\n`)
    if (complaints.length) faulty++
    for (const one of complaints) console.error(one)
  }
  const bar = new Bar(names.length)
  const run = () =>
    new Promise<void>((resolve, reject) => {
      const worker = new Worker(new URL('./batch.worker.mjs', import.meta.url), {
        workerData: { named, json }
      })
      const give = () => {
        const files = take()
        if (files.length) worker.postMessage(files)
        else void worker.terminate().then(() => resolve())
      }
      worker.on('message', (lines: BatchLine[]) => {
        lines.forEach(print)
        bar.show(done)
        give()
      })
      worker.on('error', reject)
      give()
    })
  await Promise.all(Array.from({ length: Math.min(count, Math.ceil(names.length / HANDFUL)) }, run))
  bar.end()
  return faulty ? 1 : 0
}

/** A progress bar on the error stream, where that is a terminal. */
class Bar {
  private readonly shown = process.stderr.isTTY === true && process.stdout.isTTY !== true

  constructor(private readonly whole: number) {}

  show(done: number): void {
    if (!this.shown) return
    const cells = Math.round((30 * done) / this.whole)
    process.stderr.write(`\r${'█'.repeat(cells)}${'░'.repeat(30 - cells)} ${done} of ${this.whole}`)
  }

  end(): void {
    if (this.shown) process.stderr.write('\n')
  }
}
