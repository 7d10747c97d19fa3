/** The shape of a record's file. */
import { MODES } from '#core/week'
import { z } from 'zod'
import { course, credits, grade, id, term } from '#shared/fileShapes'

const heldAs = {
  campus: z.string().max(24).nullable().optional(),
  mode: z.enum(MODES).nullable().optional(),
  /** The categories it counts in, where they were others than its course's. */
  categories: z.array(z.string().min(1).max(24)).max(20).nullable().optional()
}

export const recordFile = z.strictObject({
  format: z.literal('ridgeway record 1'),
  name: z.string().max(160).optional(),
  standing: z.enum(['freshman', 'sophomore', 'junior', 'senior', 'graduate']).optional(),
  record: z
    .array(
      z.strictObject({
        course,
        term: term.nullable(),
        credits,
        grade: grade.nullable(),
        origin: z.enum(['here', 'transfer', 'test']).optional(),
        ...heldAs
      })
    )
    .max(1000),
  /** Seats held in terms to come. */
  registered: z
    .array(
      z.strictObject({
        course,
        term,
        credits,
        section: z.string().min(1).max(8).optional(),
        ...heldAs
      })
    )
    .max(100)
    .optional(),
  planned: z.array(z.strictObject({ course, term, credits })).max(400).optional(),
  tests: z.record(z.string(), z.number()).optional(),
  milestones: z.array(id).max(100).optional(),
  exceptions: z
    .array(
      z.discriminatedUnion('kind', [
        z.strictObject({
          kind: z.literal('waiver'),
          program: z.string(),
          need: id,
          amount: z.number().positive().max(400).optional(),
          reason: z.string().max(400)
        }),
        z.strictObject({
          kind: z.literal('substitution'),
          program: z.string(),
          need: id,
          course,
          reason: z.string().max(400)
        })
      ])
    )
    .max(100)
    .optional()
})
