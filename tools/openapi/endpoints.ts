/** Every endpoint, by where its file stands. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

/** Folders of endpoints, and at which address each stands. Pages are read, by whichever way of reading. */
const FOLDERS = [
  {
    folder: fileURLToPath(new URL('../../server/api', import.meta.url)),
    at: '/api',
    file: /^(.*)\.(get|post|delete|put|patch)\.ts$/
  },
  {
    folder: fileURLToPath(new URL('../../server/routes/sign-on', import.meta.url)),
    at: '/sign-on',
    file: /^(.*)\.(get)\.ts$/
  },
  {
    folder: fileURLToPath(new URL('../../server/routes/public', import.meta.url)),
    at: '/public',
    file: /^(.*)()\.ts$/
  }
]

export interface EndpointFile {
  path: string
  text: string
  /** The line of the table of access that it stands for. */
  line: string
}

/** Whether a line of the table is of an endpoint that has a file in these folders. */
export const hasFile = (line: string): boolean => FOLDERS.some(({ at }) => line.includes(` ${at}`))

export const endpointFiles = (): EndpointFile[] => FOLDERS.flatMap(filesIn)

function filesIn({ folder, at, file: form }: (typeof FOLDERS)[number]): EndpointFile[] {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .sort()
    .flatMap((file) => {
      const [, path, method] = form.exec(file) ?? []
      if (path === undefined) return []
      const parts = path
        .split('/')
        .filter((part) => part !== 'index')
        .map((part) => part.replace(/^\[(.+)\]$/, ':$1'))
      const line = `${(method || 'get').toUpperCase()} ${[at, ...parts].join('/')}`
      return { path: join(folder, file), text: readFileSync(join(folder, file), 'utf8'), line }
    })
}
