/** What stands in the addresses of public pages. What makes no sense is answered by the page itself, in words. */
import { z } from 'zod'

const word = z.string().trim().max(40).optional().catch(undefined)

export const foundQuery = z.object({
  q: z.string().trim().max(100).catch('').default(''),
  subject: word
})
export const codeParams = z.object({ code: z.string() })
export const termParams = z.object({ term: z.string() })
export const areaParams = z.object({ area: z.string() })
