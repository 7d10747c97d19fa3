/** The published description, and the answers of a server checked against it. */
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { answerCheck, type Described } from '#shared/described'

export const described = JSON.parse(
  readFileSync(fileURLToPath(new URL('../../docs/openapi.json', import.meta.url)), 'utf8')
) as Described

export const { faultOf, patternOf } = answerCheck(described)
