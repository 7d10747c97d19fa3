/** Every request is told and counted; the figures are read at an address of their own. */
import cluster from 'node:cluster'
import { createServer } from 'node:http'
import { sayFailed } from '#server/gateways/log'
import { beginMetrics, METRICS_TYPE, metricsText } from '#server/gateways/metrics'
import { observe } from '#server/http/observed'
import { database } from '#server/http/thisServer'
import { theSettings } from '#server/settings'

export default defineNitroPlugin((nitro) => {
  const { metrics: at, proxies } = theSettings()
  nitro.hooks.hook('request', (event) => observe(event, proxies > 0))
  if (!at) return
  beginMetrics(database)
  // Several behind one port are asked together, by whoever started them.
  if (cluster.isWorker) return
  const server = createServer((_, answer) => {
    metricsText().then(
      (text) => answer.setHeader('content-type', METRICS_TYPE).end(text),
      (error: unknown) => {
        sayFailed('The figures could not be read', error)
        answer.writeHead(503).end()
      }
    )
  })
  server.on('error', (error) => sayFailed('The figures are not told', error))
  server.listen(at.port, at.host)
  nitro.hooks.hook('close', () => void server.close())
})
