import { closeDatabase, currentShelf, database } from '#server/http/endpoint'
import { endStreams } from '#server/http/streams'
import { begin } from '#server/jobs/everyMinute'
import { theSettings } from '#server/settings'

export default defineNitroPlugin((nitro) => {
  // What is wrong with them is said at once, not by the first request.
  theSettings()
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, endStreams)
  const endWork = begin(database, currentShelf)
  nitro.hooks.hook('close', async () => {
    endWork()
    await closeDatabase()
  })
  // Whoever started it was killed: nobody else would put it down.
  if (process.connected) process.once('disconnect', () => process.exit(0))
})
