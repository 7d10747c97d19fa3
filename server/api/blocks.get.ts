import { readBlocks } from '#server/features/sections/blocks'
import { endpoint } from '#server/http/endpoint'

/** The blocks of the institution: sections that are planned together, each for one group of students. */
export default endpoint('GET /api/blocks', {}, ({ db }) => readBlocks(db))
