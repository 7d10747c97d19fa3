/** All that is here in our own formats, as the command line reads them: catalog, lists, programs, records. */
import { asc, eq, gt } from 'drizzle-orm'
import { studentId } from '#core/ids'
import type { Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { readCatalog } from '#server/features/catalog/catalog'
import { readCatalogContext } from '#server/features/catalog/context'
import { PROGRAM_COLUMNS, programSpec } from '#server/features/catalog/programs'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { campusNow } from '#server/gateways/clock'
import { pause } from '#server/pause'
import { momentOf } from '#shared/catalog/context'
import type { OwnFiles } from '#shared/oneRoster/responses'
import { phaseOfCourse } from '#shared/reading'
import { catalogFileOf, listsFileOf, programFileOf, recordFileOf } from '#shared/writtenFiles'

/** Students whose records are in one answer. */
const LOT = 100

const written = (name: string, value: object) => ({ name, text: `${JSON.stringify(value, null, 2)}\n` })

/**
 * The files of the college, and then of its students lot by lot.
 *
 * @param after the student after whom it goes on; 0 for the college itself with the first lot
 */
export async function exportOwn(db: Reader, after: number): Promise<OwnFiles> {
  const files = after ? [] : await collegeFiles(db)
  const ids = (
    await db
      .select({ id: t.student.id })
      .from(t.student)
      .where(gt(t.student.id, after))
      .orderBy(asc(t.student.id))
      .limit(LOT)
  ).map((one) => studentId(one.id))
  const catalogContext = await readCatalogContext(db)
  const { today } = momentOf(await campusNow(db), catalogContext.zone)
  for (const record of ids.length ? await readStudentRecords(db, ids, 'registrar') : []) {
    const file = recordFileOf(record, phaseOfCourse(record, catalogContext, today))
    files.push(written(`records/${record.student.number}.json`, file))
  }
  await pause()
  return { files, next: ids.length === LOT ? ids.at(-1)! : null }
}

async function collegeFiles(db: Reader) {
  const catalog = await readCatalog(db)
  const versions = await db
    .select({ ...PROGRAM_COLUMNS, obliges: t.programVersion.obliges })
    .from(t.programVersion)
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .orderBy(asc(t.program.code), asc(t.programVersion.catalogYear))
  return [
    written('catalog.json', catalogFileOf(catalog)),
    written('lists.json', listsFileOf(catalog)),
    ...versions.map(({ obliges, ...row }) => {
      const { suggested, ...spec } = programSpec(row)
      const program = { ...spec, ...(suggested?.length && { suggested }), ...(obliges.length && { obliges }) }
      return written(`programs/${spec.code}-${spec.catalogYear}.json`, programFileOf(program))
    })
  ]
}
