import { ownFilesQuery } from '#shared/oneRoster/requests'
import { exportOwn } from '#server/features/files/ownFiles'
import { logAlone } from '#server/db/log'
import { endpoint } from '#server/http/endpoint'

/** All that is here in our own formats, lot by lot; who takes it is logged. */
export default endpoint('GET /api/files/own', { query: ownFilesQuery }, async ({ db, who, query }) => {
  const found = await exportOwn(db, query.after)
  const after = { files: found.files.length }
  await logAlone(db, { account: who.id, student: null, action: 'files.taken', after })
  return found
})
