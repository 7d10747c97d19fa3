/** Departments, subjects, courses and how they stand to each other, programs with their policies, course lists. */
import * as t from '#server/db/schema/index'
import { courses, lists, programs } from '../catalog'
import { CATEGORIES } from '../college'
import { feeOfCourse } from '../prices'
import { programPolicies, reviewRules } from '../reviews'
import { departments } from '../staff'
import type { Numbers, Put } from './numbers'

export async function writeCatalog(put: Put, numbers: Numbers) {
  await writeSubjects(put, numbers)
  await writeCourses(put, numbers)
  await writePrograms(put, numbers)
  await put(
    t.courseList,
    lists.map(({ from, ...list }) => ({ ...list, fromText: from }))
  )
}

async function writeSubjects(put: Put, { subjects }: Numbers) {
  await put(
    t.department,
    departments.map(({ name }, i) => ({ id: i + 1, name }))
  )
  const departmentOf = (college: string) =>
    departments.findIndex((one) => one.college === college) + 1 || null
  await put(
    t.subject,
    subjects.map(([code, about], i) => ({
      id: i + 1,
      code,
      ...about,
      departmentId: departmentOf(about.college)
    }))
  )
}

async function writeCourses(put: Put, { subjectId, courseId, categoryId }: Numbers) {
  await put(
    t.course,
    courses.map((c, i) => ({
      id: i + 1,
      subjectId: subjectId.get(c.code.split(' ')[0]!),
      ...c,
      seasons: c.offered.seasons,
      years: c.offered.years,
      fee: feeOfCourse(c)
    }))
  )
  await put(
    t.category,
    CATEGORIES.map((c, i) => ({ id: i + 1, ...c }))
  )
  await put(
    t.courseCategory,
    courses.flatMap((c) =>
      c.categories.map((code) => ({ courseId: courseId.get(c.code), categoryId: categoryId.get(code) }))
    )
  )
  const support: [string, string][] = [
    ['CSCI 101', 'CSCI 15L'],
    ['CHEM 115', 'CHEM 015L']
  ]
  await put(t.courseRelation, [
    ...support.map(([a, b]) => ({ courseId: courseId.get(a), otherId: courseId.get(b), kind: 'supportLab' })),
    ...courses.flatMap((c) =>
      c.exclusive.map((other) => ({
        courseId: courseId.get(c.code),
        otherId: courseId.get(other),
        kind: 'exclusive'
      }))
    )
  ])
}

async function writePrograms(put: Put, { programId, termId }: Numbers) {
  await put(
    t.program,
    programs.map((p, i) => ({ id: i + 1, ...p }))
  )
  await put(
    t.programVersion,
    programs.map(({ limits, mayShare, conditions, entry, repeats, note, obliges = [], ...p }, i) => ({
      id: i + 1,
      review: reviewRules[p.code],
      programId: i + 1,
      ...p,
      obliges,
      rules: { limits, mayShare, conditions, entry, repeats, note }
    }))
  )
  await put(
    t.programSignOff,
    programPolicies.map(({ program, term, policy }) => ({
      programId: programId.get(program),
      termId: termId.get(term),
      policy
    }))
  )
}
