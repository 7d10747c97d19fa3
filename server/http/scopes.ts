/** What a token may be used for: of the table of access the lines that belong to each scope. All others need a session. */
import type { Scope } from '#shared/connections/scopes'
import type { ACCESS } from './access'

export type Line = keyof typeof ACCESS

const SCOPE_LINES: Record<Scope, readonly Line[]> = {
  'offer.read': [
    'GET /api/catalog',
    'GET /api/catalog/:code',
    'GET /api/catalog/descriptions',
    'GET /api/programs',
    'GET /api/terms',
    'GET /api/terms/:code',
    'GET /api/terms/:code/offer',
    'GET /api/terms/:code/seats',
    'GET /api/terms/:code/demand',
    'GET /api/terms/:code/courses/:course'
  ],
  'offer.change': [
    'POST /api/terms/:code/courses/:course/sections',
    'POST /api/sections/:section/rules',
    'POST /api/sections/:section/seats',
    'POST /api/sections/:section/like',
    'POST /api/sections/:section/cancel',
    'POST /api/sections/:section/move'
  ],
  'students.read': [
    'GET /api/people',
    'GET /api/terms/:code/demand/needs',
    'GET /api/students/:id',
    'GET /api/students/:id/sheet'
  ],
  'record.change': [
    'POST /api/students/:id/entries',
    'POST /api/students/:id/entries/effect',
    'GET /api/terms/due',
    'POST /api/terms/:code/grades'
  ],
  'holds.change': ['GET /api/holds', 'POST /api/holds', 'DELETE /api/holds/:hold'],
  'openings.read': ['GET /api/openings', 'GET /api/openings/figures', 'GET /api/openings/:opening/unready'],
  'files.read': ['GET /api/files/one-roster', 'GET /api/files/own'],
  'files.change': [
    'GET /api/imports',
    'POST /api/imports',
    'GET /api/imports/:import',
    'POST /api/imports/:import/apply',
    'POST /api/imports/:import/undo'
  ]
}

/** The scopes with any of which a line may be asked; none where it needs a session. */
export const scopesOf = (line: Line): Scope[] =>
  (Object.keys(SCOPE_LINES) as Scope[]).filter((scope) => SCOPE_LINES[scope].includes(line))
