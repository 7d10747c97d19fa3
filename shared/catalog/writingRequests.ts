/** What is sent about courses and course lists that the registrar writes. */
import { z } from 'zod'
import { SEASONS } from '#core/catalog'
import { catalogYear } from '#shared/degree/draftRequests'
import { listShape } from '#shared/fileShapes'
import { course, idInAddress } from '#shared/requests'

const credits = z
  .number('has to be a number')
  .multipleOf(0.5, 'has to be in half credits')
  .min(0.5, 'has to be 0.5 or more')
  .max(60, 'has to be 60 or less')

const courses = z.array(course).max(40, 'has to name 40 courses or less')
const title = z
  .string('has to be a text')
  .trim()
  .min(1, 'is needed')
  .max(120, 'has to be 120 characters or less')

export const writtenCourse = z.object({
  code: course,
  title,
  description: z.string('has to be a text').trim().max(4000, 'has to be 4,000 characters or less'),
  credits,
  creditsMost: credits,
  level: z.enum(['undergraduate', 'graduate']),
  yearLevel: z
    .number('has to be a number')
    .int('has to be a whole number')
    .min(0, 'has to be 0 or more')
    .max(9, 'has to be 9 or less'),
  seasons: z.array(z.enum(SEASONS)).max(SEASONS.length),
  years: z.enum(['every', 'odd', 'even']),
  prerequisite: z.string('has to be a text').trim().max(500, 'has to be 500 characters or less'),
  repeatable: z.boolean('has to be true or false'),
  fee: z
    .number('has to be a number')
    .multipleOf(0.01, 'has to be in whole cents')
    .min(0, 'has to be 0 or more')
    .max(100_000, 'has to be 100,000.00 or less'),
  categories: z.array(z.string().min(1).max(24)).max(20, 'has to name 20 categories or less'),
  equivalents: courses,
  exclusive: courses
})

/** A course written anew, made of the version that the client knows. */
export const changedCourseBody = writtenCourse.extend({ version: idInAddress })

export const courseEffectBody = writtenCourse.extend({
  from: z.number('has to be a number').int('has to be a whole number').min(0, 'has to be 0 or more')
})

export const listBody = listShape.extend({ catalogYear, title })
