import { strFromU8, strToU8, unzip, zip } from 'fflate'
import type { RosterFile } from '#shared/oneRoster/read'
import type { RosterCounts } from '#shared/oneRoster/responses'
import type { Table } from '#shared/oneRoster/tables'

/** What a file of a set holds, to people. */
export const TABLE_WORDS: Record<Table, string> = {
  orgs: 'Places and departments',
  academicSessions: 'Terms and sessions',
  courses: 'Courses',
  classes: 'Sections',
  users: 'Students and teachers',
  roles: 'Roles',
  enrollments: 'Courses taken and taught',
  grades: 'Grade scale',
  lineItems: 'Grade columns',
  results: 'Grades'
}

/** How many lines of a set bring something. */
export const bringsIn = (counts: RosterCounts, without: readonly Table[] = []): number =>
  Object.entries(counts).reduce(
    (sum, [table, of]) => sum + (without.includes(table as Table) ? 0 : (of.new ?? 0) + (of.changed ?? 0)),
    0
  )

/** The files that were chosen: as they are, or out of an archive. */
export async function filesIn(chosen: readonly File[]): Promise<RosterFile[]> {
  const lists = await Promise.all(
    chosen.map(async (file) =>
      /\.zip$/i.test(file.name)
        ? unpacked(await file.arrayBuffer())
        : [{ name: file.name, text: await file.text() }]
    )
  )
  return lists.flat()
}

/** A set is small as text: what unpacks to more is none. */
const UNPACKED_MOST = 200_000_000

/** @throws RangeError where it is no archive that can be read */
function unpacked(bytes: ArrayBuffer): Promise<RosterFile[]> {
  let size = 0
  return new Promise((resolve, reject) => {
    unzip(
      new Uint8Array(bytes),
      { filter: ({ name, originalSize }) => name.endsWith('.csv') && (size += originalSize) < UNPACKED_MOST },
      (error, files) => {
        if (error) reject(new RangeError('This archive cannot be read.'))
        else resolve(Object.entries(files).map(([name, content]) => ({ name, text: strFromU8(content) })))
      }
    )
  })
}

/** A set as one archive. */
export function packed(files: readonly RosterFile[]): Promise<Blob> {
  return new Promise((resolve, reject) => {
    zip(Object.fromEntries(files.map((one) => [one.name, strToU8(one.text)])), (error, bytes) => {
      if (error) reject(error)
      else resolve(new Blob([bytes as BlobPart], { type: 'application/zip' }))
    })
  })
}
