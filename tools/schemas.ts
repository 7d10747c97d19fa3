/**
 * The published JSON Schemas of the files, made from the shapes that read them. `npm run schemas` writes
 * them; a test says when they are no longer those of the shapes.
 */
import { mkdirSync, writeFileSync } from 'node:fs'
import { pathToFileURL } from 'node:url'
import { z } from 'zod'
import { catalogFile, limitsFile, listsFile, programFile, routeFile } from '#shared/fileShapes'
import { recordFile } from '#shared/record/recordShape'
import { transcriptFile } from '#shared/record/transcriptShape'
import { sectionsFile, wantFile } from '#shared/week/weekFiles'

const FILES = {
  catalog: catalogFile,
  limits: limitsFile,
  lists: listsFile,
  program: programFile,
  record: recordFile,
  route: routeFile,
  sections: sectionsFile,
  transcript: transcriptFile,
  want: wantFile
}
const FOLDER = new URL('../docs/schemas/', import.meta.url)

/** By file name, the text of each schema. */
export function schemas(): Map<string, string> {
  return new Map(
    Object.entries(FILES).map(([name, shape]) => {
      const schema = { title: `Ridgeway ${name}, version 1`, ...z.toJSONSchema(shape) }
      return [`${name}.schema.json`, `${JSON.stringify(schema, null, 2)}\n`]
    })
  )
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  mkdirSync(FOLDER, { recursive: true })
  for (const [name, text] of schemas()) writeFileSync(new URL(name, FOLDER), text)
}
