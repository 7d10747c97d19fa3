/** The grade scale of the college: what somebody has, and what a rule names, stays as it is. */
import { eq, isNotNull } from 'drizzle-orm'
import { Catalog } from '#core/catalog'
import { checkProgram, faultsBrought } from '#core/checking'
import { scaleOf, type GradeScale, type GradeSpec } from '#core/grades'
import type { Reader, Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { readCatalog } from '#server/features/catalog/catalog'
import { PROGRAM_COLUMNS, programSpec } from '#server/features/catalog/programs'
import { listsFor } from '#shared/catalog/context'
import type { CollegePage } from '#shared/offices/college'
import { faultText } from '#shared/route/texts'
import { refusedCollege as refuse } from './collegeRefused'

/** @throws Refused where somebody has a grade that would be gone or another, or a rule names it */
export async function writeGrades(tx: Transaction, grades: GradeSpec[], before: CollegePage): Promise<void> {
  const said = new Map(grades.map((one) => [one.grade, one]))
  for (const grade of before.given) {
    const old = before.grades.find((one) => one.grade === grade)
    const now = said.get(grade)
    if (!now) throw refuse('grades', `has to keep ${grade}: somebody has it`)
    if (old && (now.points !== old.points || now.result !== old.result || now.rank !== old.rank))
      throw refuse('grades', `has to leave ${grade} as it is: somebody has it`)
  }
  await mustServeRules(tx, scaleOf(before.grades), scaleOf(grades))
  await tx.update(t.institution).set({ grades }).where(isNotNull(t.institution.id))
}

/** @throws Refused where a rule names a grade that would be gone */
async function mustServeRules(db: Reader, before: GradeScale, after: GradeScale): Promise<void> {
  const { courses, lists, terms } = await readCatalog(db)
  const [old, fresh] = [new Catalog(courses, before), new Catalog(courses, after)]
  const [fault] = faultsBrought(old, fresh)
  if (fault)
    throw refuse(
      'grades',
      `has to serve the rule of ${fault.path.replace('courses/', '')}: ${faultText(fault)}`
    )
  const term = terms.find((one) => one.repeatBelow !== null && !after.has(one.repeatBelow))
  if (term) throw refuse('grades', `has to keep ${term.repeatBelow!}: ${term.name} names it for repeats`)
  const versions = await db
    .select(PROGRAM_COLUMNS)
    .from(t.programVersion)
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
  for (const spec of versions.map(programSpec)) {
    const faultsWith = (scale: GradeScale, catalog: Catalog) =>
      checkProgram(spec, catalog, { lists: listsFor(lists, spec.catalogYear), scale }).map(faultText)
    const known = new Set(faultsWith(before, old))
    const brought = faultsWith(after, fresh).find((one) => !known.has(one))
    if (brought) throw refuse('grades', `has to serve ${spec.code} ${spec.catalogYear}: ${brought}`)
  }
}
