/** The transcript as a file: what another institution, or its student, reads. */
import { course, credits, date, term } from '#shared/fileShapes'
import { z } from 'zod'

const average = z.number().min(0).nullable()
const text = z.string().max(200)

export const transcriptFile = z.strictObject({
  format: z.literal('ridgeway transcript 1'),
  /** Sent by the institution itself. */
  official: z.boolean(),
  institution: text,
  made: date,
  student: z.strictObject({ name: text, number: z.string().max(24) }),
  programs: z.array(
    z.strictObject({ title: text, catalogYear: z.string().max(7), awarded: date.nullable() })
  ),
  /** What was brought in first, with a term of null. */
  terms: z.array(
    z.strictObject({
      term: term.nullable(),
      name: text,
      courses: z.array(
        z.strictObject({
          course,
          title: text,
          credits,
          grade: z.string().max(3).nullable(),
          origin: z.enum(['here', 'transfer', 'test']),
          /** Why it gives no credits. */
          remark: text.optional()
        })
      ),
      attempted: credits,
      earned: credits,
      gpa: average,
      gpaSoFar: average
    })
  ),
  attempted: credits,
  earned: credits,
  gpa: average
})
