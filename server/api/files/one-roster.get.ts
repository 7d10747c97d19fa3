import { exportRoster } from '#server/features/files/imports'
import { logAlone } from '#server/db/log'
import { endpoint } from '#server/http/endpoint'

/** All that is here as the files of a set; who takes it is logged. */
export default endpoint('GET /api/files/one-roster', {}, async ({ db, who }) => {
  const files = await exportRoster(db)
  await logAlone(db, {
    account: who.id,
    student: null,
    action: 'files.taken',
    after: { files: files.length }
  })
  return files
})
