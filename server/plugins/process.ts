import type { Server } from 'node:http'
import type { Socket } from 'node:net'
import { closeDatabase, currentCatalogContext, database, theWebhooks } from '#server/http/thisServer'
import { endStreams } from '#server/http/streams'
import { begin } from '#server/jobs/everyMinute'
import { theSettings } from '#server/settings'

/**
 * A connection that is kept is ended by whoever keeps it, and that has to be the other side: what is sent in the moment
 * in which the server ends it is lost. Longer than browsers' and proxies' usual minute (common practice).
 */
const KEPT_MS = 75_000

export default defineNitroPlugin((nitro) => {
  // What is wrong with them is said at once, not by the first request.
  theSettings()
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, endStreams)
  nitro.hooks.hook('request', (event) => {
    const { server } = event.node.req.socket as Socket & { server?: Server }
    if (server && server.keepAliveTimeout !== KEPT_MS) server.keepAliveTimeout = KEPT_MS
  })
  const endWork = begin(database, currentCatalogContext)
  theWebhooks().begin()
  nitro.hooks.hook('close', async () => {
    endWork()
    theWebhooks().end()
    await closeDatabase()
  })
  // Whoever started it was killed: nobody else would put it down.
  if (process.connected) process.once('disconnect', () => process.exit(0))
})
