/** What is sent to sign in, and to change a password. */
import { idInAddress } from '#shared/requests'
import { z } from 'zod'

export const signInBody = z.object({
  name: z.string().min(1, 'is needed').max(60, 'has to be 60 characters or less'),
  password: z.string().min(1, 'is needed').max(200, 'has to be 200 characters or less')
})

/** Long enough without rules on what it is made of (NIST SP 800-63B). */
export const passwordBody = z.object({
  present: z.string().min(1, 'is needed').max(200, 'has to be 200 characters or less'),
  next: z.string().min(12, 'has to be 12 characters or more').max(200, 'has to be 200 characters or less')
})

export const sessionParams = z.object({
  session: idInAddress
})
