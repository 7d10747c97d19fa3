/** The production build by itself, when it is needed. */
import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import { buildWhenNeeded } from './build'

await buildWhenNeeded(dirname(dirname(fileURLToPath(import.meta.url))))
