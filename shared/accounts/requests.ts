/** What is sent to sign in, and to change a password. */
import { STAFF_ROLES } from './responses'
import { idInAddress } from '#shared/requests'
import { z } from 'zod'

export const signInBody = z.object({
  name: z.string().min(1, 'is needed').max(60, 'has to be 60 characters or less'),
  password: z.string().min(1, 'is needed').max(200, 'has to be 200 characters or less'),
  /** Of the second step, where the account asks for one. */
  code: z.string().trim().max(20, 'has to be 20 characters or less').optional()
})

/** A code of the app that the second step is set up with. */
export const codeBody = z.object({
  code: z
    .string('is needed')
    .transform((text) => text.replace(/\s/g, ''))
    .pipe(z.string().regex(/^\d{6}$/, 'has to be the six digits that the app shows'))
})

/** Long enough without rules on what it is made of (NIST SP 800-63B). */
const nextPassword = z
  .string('is needed')
  .min(12, 'has to be 12 characters or more')
  .max(200, 'has to be 200 characters or less')

/** Who lost the password, by the name to sign in with. */
export const lostBody = z.object({ name: signInBody.shape.name })

/** Whoever changes how they sign in gives the present password. */
export const presentBody = z.object({
  present: z.string('is needed').min(1, 'is needed').max(200, 'has to be 200 characters or less')
})

export const passwordBody = presentBody.extend({ next: nextPassword })

/** The first password, or another one in place of one that was lost. */
export const welcomeBody = z.object({ next: nextPassword })

export const accountParams = z.object({ account: idInAddress })

/** A name to sign in with. */
export const SIGN_IN = /^[a-z][a-z0-9.-]{1,59}$/

export const invitationBody = z.object({
  name: z.string('is needed').trim().min(1, 'is needed').max(80, 'has to be 80 characters or less'),
  signIn: z.string('is needed').regex(SIGN_IN, 'has to be small letters, digits, points and dashes'),
  role: z.enum(STAFF_ROLES, 'has to be one of the roles of staff'),
  mail: z.email('has to be a mail address').max(120, 'has to be 120 characters or less'),
  /** Of a role that teaches: who of those who teach; of a department: which. */
  instructor: idInAddress.nullable().default(null),
  department: idInAddress.nullable().default(null),
  /** Of an office: which, as kinds of holds name it. */
  office: z.string().max(80, 'has to be 80 characters or less').nullable().default(null)
})
export type Invited = z.output<typeof invitationBody>

export const sessionParams = z.object({
  session: idInAddress
})
