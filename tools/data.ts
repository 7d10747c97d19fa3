/** Where the private database and all that goes with it is kept. */
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)))
export const DATA = process.env.RIDGEWAY_DATA ?? join(ROOT, '.data')
