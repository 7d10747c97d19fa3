/** Writing what an import brings of a college's frame: its places, terms, courses and sections. */
import { eq } from 'drizzle-orm'
import { SEASONS, subjectOf, usualYearLevel, type Season } from '#core/catalog'
import { scaleOf } from '#core/grades'
import { formatDayLetters } from '#core/formats'
import { courseCode, termCode } from '#core/ids'
import type { IsoDate } from '#core/time'
import * as t from '#server/db/schema/index'
import { usualColumns, wholeSession } from '#server/features/terms/newTerm'
import { freeCodes } from '#server/features/sections/codes'
import { meetingOf, scaleWith, type Row } from '#shared/oneRoster/tables'
import { idOf } from './rosterIds'
import { ofChange, oneOf, READERS, type OnTable } from './writing'

export const orgs: OnTable = async (work, items) => {
  const { tx, journal } = work
  const institution = async () => (await tx.select().from(t.institution).limit(1))[0]
  for (const { id, row, change } of items) {
    const name = row.name!
    const isCampus = row.type === 'school'
    if (id === idOf.institution) {
      const known = await institution()
      if (known) await journal.update('institution', known.id, { name })
      else await journal.insert('institution', [{ name, timeZone: row['metadata.timeZone'] }])
    } else if (change === 'changed') {
      // A department is known by its name, so that it never differs.
      await journal.update('campus', await oneOf(work, 'campus', id), { name })
    } else if (isCampus) {
      const { id: institutionId } = (await institution())!
      await journal.insert('campus', [{ institutionId, code: id.slice('campus-'.length), name }])
    } else await journal.insert('department', [{ name }])
  }
}

export const grades: OnTable = async ({ tx, journal, wanted }, items) => {
  const [institution] = await tx.select().from(t.institution).limit(1)
  const isNew = (wanted.get('orgs') ?? []).some((one) => one.id === idOf.institution && one.change === 'new')
  // Of a new institution the lines are its scale; elsewhere they add to the one there is, or change it.
  const known = isNew ? [] : scaleOf(institution!.grades).grades
  const { grades: merged } = scaleWith(
    known,
    items.map((one) => one.row)
  )
  await journal.update('institution', institution!.id, { grades: merged })
}

/** Letters of a code that say its season, by common use. */
const SEASON_LETTERS = { AU: 'autumn', FA: 'autumn', WI: 'winter', SP: 'spring', SU: 'summer' } as const
const MONTH_SEASONS = { 1: 'spring', 5: 'summer', 8: 'autumn' } as const

/** As the line says, or the letters of its code, or its first month. */
function seasonOf(code: string, row: Row): Season {
  const said = SEASONS.find((one) => one === row['metadata.season'])
  const [, letters] = /([A-Z]{2})\d/.exec(code) ?? []
  const month = Number(row.startDate!.slice(5, 7))
  const byMonth = MONTH_SEASONS[month >= 8 ? 8 : month >= 5 ? 5 : 1]
  return said ?? SEASON_LETTERS[letters as keyof typeof SEASON_LETTERS] ?? byMonth
}

export const academicSessions: OnTable = async ({ tx, journal }, items) => {
  const made = ofChange(items, 'new')
  // The institution comes before its terms.
  const [institution] = await tx.select().from(t.institution).limit(1)
  const zone = institution!.timeZone
  for (const { id, row } of made.filter((one) => one.row.type === 'term')) {
    const code = id.slice('term-'.length)
    const [start, end] = [row.startDate as IsoDate, row.endDate as IsoDate]
    const season = seasonOf(code, row)
    // Until the registrar says otherwise on the term's page.
    const said = { code: termCode(code), name: row.title!, season, start, end }
    const [termId] = await journal.insert('term', [usualColumns(said, zone)])
    const hasWhole = made.some((one) => one.id === idOf.session(code, start, end))
    if (!hasWhole) await journal.insert('session', [wholeSession(termId!, said)])
  }
  const terms = new Map(await READERS.term(tx))
  for (const { row } of made.filter((one) => one.row.type === 'gradingPeriod')) {
    const termId = terms.get(row.parentSourcedId!)!
    const [term] = await tx.select().from(t.term).where(eq(t.term.id, termId))
    const isWhole = term!.startsOn === row.startDate && term!.endsOn === row.endDate
    const codes = await tx
      .select({ code: t.session.code })
      .from(t.session)
      .where(eq(t.session.termId, termId))
    const isFree = (code: string) => codes.every((one) => one.code !== code)
    let n = codes.length + 1
    while (!isFree(`P${n}`)) n++
    const code = isWhole && isFree('FULL') ? 'FULL' : `P${n}`
    await journal.insert('session', [
      {
        ...{ termId, code, name: row.title, half: isWhole ? 'full' : 'other' },
        ...{ startsOn: row.startDate, endsOn: row.endDate }
      }
    ])
  }
}

/** What a line says of a course; what it does not say stays, or is as is usual. */
const courseColumns = (row: Row) => ({
  ...(row.title ? { title: row.title } : {}),
  ...(row['metadata.credits'] ? { credits: Number(row['metadata.credits']) } : {}),
  ...(row['metadata.prerequisite'] ? { prerequisite: row['metadata.prerequisite'] } : {}),
  ...(row['metadata.description'] ? { description: row['metadata.description'] } : {})
})

export const courses: OnTable = async (work, items) => {
  const { tx, journal } = work
  const subjects = await work.rows('subject')
  const departments = await work.rows('department')
  const made = ofChange(items, 'new')
  for (const { row } of made) {
    const code = row.courseCode!.split(' ')[0]!
    if (subjects.has(code)) continue
    const [name = code] = (row.subjects ?? '').split(',').filter(Boolean)
    const departmentId = departments.get(row.orgSourcedId!) ?? null
    const [id] = await journal.insert('subject', [
      { code, name: name.slice(0, 80), college: '', departmentId }
    ])
    subjects.set(code, id!)
  }
  const rows = made.map(({ row }) => {
    const code = courseCode(row.courseCode!)
    const credits = Number(row['metadata.credits'])
    return {
      ...{ subjectId: subjects.get(subjectOf(code)), code, description: '', prerequisite: '' },
      ...courseColumns(row),
      creditsMost: Math.max(credits, Number(row['metadata.creditsMost'] || credits)),
      level: row['metadata.level'] || 'undergraduate',
      yearLevel: usualYearLevel(code),
      seasons: (row['metadata.seasons'] || 'autumn,spring').split(',').map((one) => one.trim()),
      ...{ years: 'every', repeatable: false, fee: 0 }
    }
  })
  await journal.insert('course', rows)
  for (const { id, row } of ofChange(items, 'changed')) {
    const courseId = await oneOf(work, 'course', id)
    const [before] = await tx.select().from(t.course).where(eq(t.course.id, courseId))
    const set = courseColumns(row)
    const most = Number(row['metadata.creditsMost'] || before!.creditsMost)
    await journal.update('course', courseId, {
      ...set,
      creditsMost: Math.max(most, set.credits ?? before!.credits)
    })
  }
}

export const classes: OnTable = async (work, items) => {
  const { tx, journal } = work
  // A section before its components.
  const made = ofChange(items, 'new').filter((one) => one.row.classCode)
  const ordered = [
    ...made.filter((one) => !one.row['metadata.parentSourcedId']),
    ...made.filter((one) => one.row['metadata.parentSourcedId'])
  ]
  const [courseOf, termOf, campuses] = [
    await work.rows('course'),
    await work.rows('term'),
    await work.rows('campus')
  ]
  const known = new Map(await READERS.section(tx))
  const credits = new Map((await tx.select().from(t.course)).map((one) => [one.id, one.credits]))
  const sessions = await tx.select().from(t.session)
  const [firstCampus] = campuses.values()
  const codes = await freeCodes(tx, ordered.length)
  for (const [i, { id, row }] of ordered.entries()) {
    const [term = '', subject = '', number = ''] = id.slice('class-'.length).split('-')
    const termId = termOf.get(idOf.term(term))!
    const courseId = courseOf.get(idOf.course(`${subject} ${number}`))!
    const ofTerm = sessions.filter((one) => one.termId === termId)
    const wanted = row.termSourcedIds!.split(',')[0]!
    const session =
      ofTerm.find((one) => idOf.session(term, one.startsOn, one.endsOn) === wanted) ??
      ofTerm.find((one) => one.half === 'full') ??
      ofTerm[0]!
    const parentId = known.get(row['metadata.parentSourcedId'] ?? '') ?? null
    const [sectionId] = await journal.insert('section', [
      {
        ...{
          courseId,
          termId,
          sessionId: session.id,
          number: row.classCode!.toUpperCase(),
          code: codes[i],
          parentId
        },
        ...{ kind: row['metadata.kind'] || 'lecture', mode: row['metadata.mode'] || 'inPerson' },
        ...{
          campusId: campuses.get(row.schoolSourcedId!) ?? firstCampus,
          credits: parentId ? 0 : credits.get(courseId)
        },
        ...{ capacity: Number(row['metadata.seats']), waitCapacity: 0, fee: 0 }
      }
    ])
    known.set(id, sectionId!)
    const meetings = (row['metadata.meetings'] || '').split(';').flatMap((one) => meetingOf(one) ?? [])
    await journal.insert(
      'meeting',
      meetings.map(({ days, start, end }) => ({
        ...{ sectionId, days: formatDayLetters(days), startsMin: start, endsMin: end },
        ...{ fromOn: session.startsOn, toOn: session.endsOn }
      }))
    )
  }
}
