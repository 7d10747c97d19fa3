/** What is sent to post grades, to have a transcript sent, and to graduate. */
import { idInAddress, studentParams, termCode } from '#shared/requests'
import { z } from 'zod'

export const transcriptBody = z.object({
  to: z
    .string('has to be text')
    .trim()
    .min(1, 'has to name who receives it')
    .max(120, 'has to be 120 characters or less'),
  email: z
    .email('has to be an address such as office@example.org')
    .max(160, 'has to be 160 characters or less'),
  /** The term whose grades it waits for; null to send the record as it is. */
  after: termCode.nullable().default(null)
})
export type TranscriptAsked = z.output<typeof transcriptBody>

export const transcriptParams = studentParams.extend({ transcript: idInAddress })

/** The id of a program's condition. */
export const milestoneParams = studentParams.extend({
  condition: z.string().regex(/^[a-z][a-z0-9-]{0,39}$/, 'has to be the id of a condition')
})

export const graduationBody = z.object({ term: termCode })
export const graduationParams = z.object({ graduation: idInAddress })

/** The same seed gives the same grades. */
export const gradesBody = z.object({
  seed: z
    .int('has to be a whole number')
    .min(0, 'has to be 0 or more')
    .max(999_999, 'has to be 999999 or less')
    .default(1)
})
