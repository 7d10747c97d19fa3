/** What is sent to place students. */
import { OFFICE_OVERRIDES } from '#core/registration'
import { sectionCode } from '#shared/registration/requests'
import { idInAddress, reason, termCode } from '#shared/requests'
import { z } from 'zod'

/** Whom an office places, and from what: what they handed in, their block's sections, or what those of an opening plan. */
const group = z.discriminatedUnion(
  'kind',
  [
    z.object({ kind: z.literal('handedIn') }),
    z.object({
      kind: z.literal('block'),
      block: z.string().min(1, 'is needed').max(16, 'has to be the code of a block')
    }),
    z.object({ kind: z.literal('opening'), opening: idInAddress })
  ],
  'has to be who handed something in, a block or an opening'
)
export type PlacingGroup = z.infer<typeof group>

const setAside = z
  .array(z.enum(OFFICE_OVERRIDES, `has to be one of ${OFFICE_OVERRIDES.join(', ')}`))
  .max(OFFICE_OVERRIDES.length, 'has to name each rule once')
  .default([])

export const placingBody = z.object({
  group,
  setAside,
  /** How many students of the group have been looked at before. */
  from: z
    .number('has to be a number')
    .int('has to be a whole number')
    .min(0, 'has to be 0 or more')
    .default(0),
  /** Seats that are proposed to those before, by section. */
  taken: z
    .record(sectionCode, z.number().int('has to be a whole number').min(0, 'has to be 0 or more'))
    .default({})
})
export type PlacingAsked = z.infer<typeof placingBody>

export const placementBody = z.object({
  term: termCode,
  sections: z
    .array(sectionCode)
    .min(1, 'has to name at least one section')
    .max(40, 'has to name 40 sections or less'),
  setAside,
  /** How the student agreed; of courses that were handed in, the handing in says it. */
  consent: reason.optional()
})
export type Placement = z.infer<typeof placementBody>
