/** All in our own formats: read again from the files, each degree comes to the same. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { z } from 'zod'
import { readTrial } from '#shared/degree/trial'
import { compileProgram } from '#core/degree'
import { catalogFrom, programFrom, readFileText, recordFrom } from '#shared/files'
import { catalogFile, listsFile, programFile } from '#shared/fileShapes'
import { recordFile } from '#shared/record/recordShape'
import { listsFor } from '#shared/catalog/context'
import { readStudent } from '#shared/reading'
import { exportOwn } from '#server/features/files/ownFiles'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { studentId } from '#core/ids'
import type { RosterFile } from '#shared/oneRoster/read'
import { at, demoWorld, type World } from './world'

let world: World
let files: RosterFile[]
beforeAll(async () => {
  world = await demoWorld('own_files')
  files = []
  for (let after: number | null = 0; after !== null;) {
    const lot: Awaited<ReturnType<typeof exportOwn>> = await exportOwn(world.db, after)
    files.push(...lot.files)
    after = lot.next
  }
})
afterAll(() => world.close())

function read<T>(name: string, shape: z.ZodType<T>): T {
  const found = readFileText(files.find((one) => one.name === name)!.text, shape)
  if (!found.ok) throw new Error(`${name}: ${JSON.stringify(found.faults)}`)
  return found.value
}

describe('the files of a college', () => {
  it('are a catalog, lists, each version of each program, and a record of each student', () => {
    const of = (folder: string) => files.filter((one) => one.name.startsWith(folder))
    expect(of('records/')).toHaveLength(317)
    expect(of('programs/')).toHaveLength(5)
    expect(new Set(files.map((one) => one.name)).size).toBe(files.length)
    for (const { name } of of('records/')) expect(() => read(name, recordFile)).not.toThrow()
    for (const { name } of of('programs/')) expect(() => read(name, programFile)).not.toThrow()
  })

  it('come to the same degrees as what is here', async () => {
    const { now } = await at(world)
    const { catalog, terms } = catalogFrom(read('catalog.json', catalogFile))
    const { lists } = read('lists.json', listsFile)
    const ids = [1, 3, 4, 6, 7, 12, 13, 14, 16, 40, 80, 160].map(studentId)
    for (const record of await readStudentRecords(world.db, ids, 'registrar')) {
      const programs = record.programs.map(({ spec }) =>
        compileProgram(programFrom(read(`programs/${spec.code}-${spec.catalogYear}.json`, programFile)), {
          lists: listsFor(
            lists.map((one) => ({ title: '', ...one })),
            spec.catalogYear
          ),
          scale: catalog.scale
        })
      )
      const content = recordFrom(read(`records/${record.student.number}.json`, recordFile), catalog.scale)
      const { audits } = readTrial(content, programs, catalog, terms)
      const here = readStudent(record, world.catalogContext, now)
      // A file has no clock by which grades are due.
      const of = (all: typeof audits) =>
        all.map(({ program, amounts, areas }) => {
          const { earned, underWay, gradesDue, registered, planned, needed } = amounts
          return {
            ...{
              code: program.spec.code,
              needed,
              earned,
              registered,
              planned,
              underWay: underWay + gradesDue
            },
            needs: areas.flatMap((area) => area.needs.map((one) => [one.need.id, one.state === 'needed']))
          }
        })
      expect(of(audits), record.student.name).toEqual(of(here.audits))
    }
  })
})
