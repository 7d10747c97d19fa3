/** What is sent about versions of programs that are being written. */
import { z } from 'zod'
import { programShape } from '#shared/fileShapes'
import { idInAddress } from '#shared/requests'
import { DRAFT_AGAINST, isCatalogYear, PROGRAM_TEXT_MOST } from './drafts'

export const draftParams = z.object({ draft: idInAddress })

export const catalogYear = z
  .string('has to be a catalog year such as 2028-29')
  .refine(isCatalogYear, { error: 'has to be a catalog year such as 2028-29' })

/** A draft of the next version of a program, or of a program that is new. */
export const newDraftBody = z.discriminatedUnion('of', [
  z.object({ of: z.literal('version'), version: idInAddress, catalogYear }),
  z.object({
    of: z.literal('new'),
    code: programShape.shape.code,
    title: z
      .string('has to be a text')
      .trim()
      .min(1, 'is needed')
      .max(120, 'has to be 120 characters or less'),
    kind: programShape.shape.kind,
    catalogYear
  })
])
export type NewDraft = z.output<typeof newDraftBody>

const draftText = z
  .string('has to be a text')
  .max(PROGRAM_TEXT_MOST, `has to be ${PROGRAM_TEXT_MOST} characters or less`)
/** The text as it is now, made of the version that the client knows. */
export const draftBody = z.object({ text: draftText, version: idInAddress })

export const draftEffectBody = z.object({
  text: draftText,
  against: z.enum(DRAFT_AGAINST),
  students: z.array(idInAddress).min(1, 'has to name a student').max(24, 'has to name 24 students or less')
})

export const draftPublicationBody = z.object({ version: idInAddress })
