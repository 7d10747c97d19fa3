/** What is sent to register. */
import { termCode, course } from '#shared/requests'
import { z } from 'zod'

export const runBody = z.object({
  term: termCode,
  courses: z.array(course).min(1, 'has to name at least one course').max(20, 'has to name 20 courses or less')
})
