/**
 * Several servers behind one port, as several machines behind a proxy: `node tools/workers.mjs N SERVER`. One that ends is
 * started again; what each counts is added up where `RIDGEWAY_METRICS` says.
 */
import cluster from 'node:cluster'
import { createServer } from 'node:http'
import { AggregatorRegistry, Registry } from 'prom-client'

const [count, exec] = [Number(process.argv[2]), process.argv[3]]
/** One that cannot even start is not started over and over. */
const SOON_MS = 5000
const SOON_MOST = 5

let ending = false
let soon = 0
// Each takes its connections itself: one handed to a server that dies at that moment would be answered by nobody.
cluster.schedulingPolicy = cluster.SCHED_NONE
cluster.setupPrimary({ exec, args: [] })

function begin() {
  const began = Date.now()
  const worker = cluster.fork()
  worker.once('exit', (code) => {
    if (ending) {
      if (!Object.keys(cluster.workers).length) process.exit(0)
      return
    }
    soon = Date.now() - began < SOON_MS ? soon + 1 : 0
    if (soon < SOON_MOST) begin()
    else end(code || 1)
  })
}

function end(code = 0) {
  if (ending) return
  ending = true
  const workers = Object.values(cluster.workers)
  if (!workers.length || code) process.exit(code)
  // Each lets its requests end, and then itself.
  for (const worker of workers) worker.process.kill('SIGTERM')
}
for (const signal of ['SIGTERM', 'SIGINT']) process.on(signal, () => end())
// Whoever started it was killed: nobody else would put it down.
if (process.connected) process.once('disconnect', () => end())

for (let i = 0; i < count; i++) begin()

const at = /^([^\s:]+):(\d+)$/.exec(process.env.RIDGEWAY_METRICS ?? '')
if (at) {
  const sums = new AggregatorRegistry()
  sums.setContentType(Registry.OPENMETRICS_CONTENT_TYPE)
  createServer((_, answer) => {
    sums.clusterMetrics().then(
      (text) => answer.setHeader('content-type', sums.contentType).end(text),
      () => answer.writeHead(503).end()
    )
  }).listen(Number(at[2]), at[1])
}
