/** What is sent to ask for a waiver, and to answer it. */
import { reason } from '#shared/requests'
import { z } from 'zod'

export const waiverBody = z.object({ reason })

export const waiverAnswerBody = z.object({ answer: z.enum(['granted', 'declined']) })
