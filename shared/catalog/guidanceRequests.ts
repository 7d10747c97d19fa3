/** What is sent about guidance. */
import { z } from 'zod'
import { idInAddress } from '#shared/requests'
import { GUIDANCE_ABOUT } from './guidance'

const words = (most: number) =>
  z.string('has to be a text').trim().min(1, 'is needed').max(most, `has to be ${most} characters or less`)

export const guidanceBody = z
  .object({
    about: z.enum(GUIDANCE_ABOUT),
    key: z.string().trim().max(16, 'has to be 16 characters or less').default(''),
    title: words(80),
    text: words(600),
    link: z
      .url({ protocol: /^https$/, error: 'has to be an address that begins with https://' })
      .max(300, 'has to be 300 characters or less')
      .nullable()
      .default(null)
  })
  .refine(({ about, key }) => about === 'everybody' || key !== '', {
    path: ['key'],
    error: 'has to name what it is about'
  })
  .refine(({ about, key }) => about !== 'everybody' || key === '', {
    path: ['key'],
    error: 'has to be empty for everybody'
  })
export type GuidanceSaid = z.output<typeof guidanceBody>
export const guidanceParams = z.object({ guidance: idInAddress })
