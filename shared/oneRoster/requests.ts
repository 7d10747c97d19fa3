/** What is sent about sets of files. */
import { z } from 'zod'
import { idInAddress } from '#shared/requests'
import { TABLES } from './tables'

/** The longest set that is taken, in bytes of the request. */
export const SET_MOST = 40 * 1024 * 1024

const text = z.string('has to be a text')
export const importBody = z.object({
  name: text.trim().min(1, 'is needed').max(120, 'has to be 120 characters or less'),
  files: z
    .array(
      z.object({ name: text.min(1, 'is needed').max(200, 'has to be 200 characters or less'), text }),
      'has to be a list of files'
    )
    .min(1, 'has to name a file')
    .max(40, 'has to name 40 files or less')
})
export const importParams = z.object({ import: idInAddress })
const table = z.enum(TABLES, 'has to be a file of the set')
/** Files of which nothing is taken over, and single lines. */
export const applyBody = z.object({
  leaveOut: z.array(table).max(TABLES.length, 'has to name each file once').default([]),
  lines: z
    .array(
      z.object({
        table,
        line: z.number('has to be a number').int('has to be a whole number').min(1, 'has to be 1 or more')
      })
    )
    .max(2000, 'has to name 2,000 lines or less')
    .default([])
})
export const ownFilesQuery = z.object({
  after: z.coerce
    .number('has to be a number')
    .int('has to be a whole number')
    .min(0, 'has to be 0 or more')
    .default(0)
})
export const importQuery = z.object({
  page: z.coerce
    .number('has to be a number')
    .int('has to be a whole number')
    .min(0, 'has to be 0 or more')
    .default(0)
})
