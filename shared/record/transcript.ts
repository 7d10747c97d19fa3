/** A transcript: the record as it is handed to somebody, on paper, on screen and as a file alike. */
import { recordTerms, type RecordLine, type RecordTerm } from '#core/degree'
import type { Instant } from '#core/time'
import type { CatalogContext } from '#shared/catalog/context'
import type { GraduationView } from '#shared/degree/graduation'
import type { Reading } from '#shared/reading'
import type { StudentRecord } from '#shared/record/responses'
import { campusDate } from '#shared/when'
import type { z } from 'zod'
import type { transcriptFile } from '#shared/record/transcriptShape'

export type Transcript = z.infer<typeof transcriptFile>

/** The columns of a student's record, as the reading has its attempts. */
export function recordTermsOf(
  { record }: Pick<StudentRecord, 'record'>,
  { attempts }: Pick<Reading, 'attempts'>,
  { catalog, terms }: Pick<CatalogContext, 'catalog' | 'terms'>
): RecordTerm[] {
  return recordTerms({ catalog, record }, attempts, terms)
}

const REASONS: Record<NonNullable<RecordLine['why']>, string> = {
  failed: 'no credit',
  withdrawn: 'withdrawn',
  audited: 'audited, no credit',
  repeated: 'repeated',
  exclusive: 'excluded by another course'
}

interface Given {
  student: Pick<StudentRecord, 'student' | 'record' | 'programs' | 'graduations'>
  reading: Pick<Reading, 'attempts' | 'audits'>
  catalogContext: CatalogContext
  now: Instant
  institution: string
  /** Sent by the institution, and not taken along by the student. */
  isOfficial: boolean
}

/** Averages are rounded to two digits, as they are printed. */
export function transcriptOf({
  student: of,
  reading,
  catalogContext,
  now,
  institution,
  isOfficial
}: Given): Transcript {
  const columns = recordTermsOf(of, reading, catalogContext)
  const gpa = (value: number | undefined) => (value === undefined ? null : Math.round(value * 100) / 100)
  return {
    format: 'ridgeway transcript 1',
    official: isOfficial,
    institution,
    made: campusDate(now, catalogContext.zone),
    student: { name: of.student.name, number: of.student.number },
    programs: of.programs.map(({ spec }) => ({
      title: spec.title,
      catalogYear: spec.catalogYear,
      awarded: awardedOn(of.graduations, spec, catalogContext.zone)
    })),
    terms: columns.map(({ term, lines, attempted, earned, average, soFar }) => ({
      term,
      name: term === null ? 'Brought in' : termNameOf(catalogContext, term),
      courses: lines.map((line) => ({
        course: line.course,
        title: catalogContext.catalog.maybeCourse(line.course)?.title ?? '',
        credits: line.credits,
        grade: line.grade,
        origin: line.origin,
        ...(line.why && { remark: remarkOf(line, catalogContext) })
      })),
      ...{ attempted, earned, gpa: gpa(average), gpaSoFar: gpa(soFar) }
    })),
    attempted: columns.reduce((sum, one) => sum + one.attempted, 0),
    earned: columns.reduce((sum, one) => sum + one.earned, 0),
    gpa: gpa(columns.findLast((one) => one.soFar !== undefined)?.soFar)
  }
}

const termNameOf = ({ terms }: Pick<CatalogContext, 'terms'>, code: string) =>
  terms.find((one) => one.code === code)?.name ?? code

/** `no credit; taken again, in Spring 2027`. */
export function remarkOf(
  { why, replacedBy: by, course }: RecordLine,
  catalogContext: Pick<CatalogContext, 'terms'>
): string {
  if (!why) return ''
  if (!by) return REASONS[why]
  const where = by.term === null ? 'brought in' : `in ${termNameOf(catalogContext, by.term)}`
  const what = by.course === course ? 'taken again' : `${by.course} instead`
  return `${REASONS[why]}; ${what}, ${where}`
}

function awardedOn(
  graduations: readonly GraduationView[],
  { title, catalogYear, kind }: { title: string; catalogYear: string; kind: string },
  zone: string
): string | null {
  // A minor is awarded with the degree.
  const awarded = graduations.find((one) => one.awarded)
  if (!awarded?.awarded) return null
  const isOf = kind !== 'degree' || (awarded.program === title && awarded.catalogYear === catalogYear)
  return isOf ? campusDate(awarded.awarded.at, zone) : null
}
