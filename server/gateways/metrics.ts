/**
 * What is counted while a server runs, as OpenMetrics has it. Counted in each process; of several behind one port their
 * starter adds them up.
 */
import { performance } from 'node:perf_hooks'
import { sql } from 'drizzle-orm'
import {
  AggregatorRegistry,
  collectDefaultMetrics,
  Counter,
  Gauge,
  Histogram,
  Registry,
  type OpenMetricsContentType
} from 'prom-client'
import type { Database } from '#server/db/connect'

const registry = new Registry<OpenMetricsContentType>()
registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE)
const registers = [registry]
/** Seconds. */
const buckets = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10]

const requests = new Histogram({
  name: 'http_request_duration_seconds',
  help: 'Requests answered, by the pattern of their address; streams are not among them.',
  labelNames: ['method', 'route', 'status'],
  ...{ buckets, registers }
})
const lines = new Counter({
  name: 'ridgeway_registration_lines',
  help: 'Lines of registration runs that were committed, by what came of them.',
  labelNames: ['outcome'],
  registers
})
const jobs = new Histogram({
  name: 'ridgeway_job_duration_seconds',
  help: 'Work that is done without being asked, by what it is.',
  labelNames: ['job', 'ended'],
  ...{ buckets, registers }
})
const streams = new Gauge({ name: 'ridgeway_streams', help: 'Streams of news that are open.', registers })

export const metrics = {
  request: (method: string, route: string, status: number, seconds: number) =>
    requests.observe({ method, route, status }, seconds),
  line: (outcome: string) => lines.inc({ outcome }),
  streamBegan: () => streams.inc(),
  streamEnded: () => streams.dec()
}

/** Does a piece of work, and counts how long it took. */
export async function timed<T>(job: string, work: () => Promise<T>): Promise<T> {
  const began = performance.now()
  let ended = 'failed'
  try {
    const done = await work()
    ended = 'done'
    return done
  } finally {
    jobs.observe({ job, ended }, (performance.now() - began) / 1000)
  }
}

/** What waits in the database, which is the same for all servers on it. */
const WAITING = sql`
  select 'runs' as what, count(*) as n from receipt where ended_at is null
  union all select 'payments', count(*) from payment where state = 'asked'
  union all select 'mails', count(*) from mail where state = 'waiting'
  union all select 'deliveries', count(*) from delivery where state = 'waiting'`
const LOCKS = sql`show global status where variable_name in
  ('Innodb_row_lock_waits', 'Innodb_row_lock_time', 'Innodb_row_lock_current_waits', 'Innodb_deadlocks')`

/** Counts from now on, what the process itself uses and what waits in the database too. */
export function beginMetrics(database: () => Database): void {
  collectDefaultMetrics({ register: registry })
  // The database's figures are not of this process: of several servers the highest is told, not their sum.
  const ofDatabase = { aggregator: 'max' as const, registers }
  new Gauge({
    name: 'ridgeway_waiting',
    help: 'What waits to be done or sent.',
    labelNames: ['what'],
    ...ofDatabase,
    async collect() {
      const [rows] = (await database().execute(WAITING)) as unknown as [{ what: string; n: number }[]]
      for (const { what, n } of rows) this.set({ what }, Number(n))
    }
  })
  new Gauge({
    name: 'ridgeway_database_locks',
    help: 'Row locks of the database: waits, milliseconds waited, waits at present, deadlocks.',
    labelNames: ['what'],
    ...ofDatabase,
    async collect() {
      const [rows] = (await database().execute(LOCKS)) as unknown as [
        { Variable_name: string; Value: string }[]
      ]
      for (const row of rows) this.set({ what: row.Variable_name.toLowerCase() }, Number(row.Value))
    }
  })
  // Answers its starter, where there is one that asks.
  AggregatorRegistry.setRegistries([registry])
  new AggregatorRegistry()
}

export const metricsText = (): Promise<string> => registry.metrics()
export const METRICS_TYPE: string = Registry.OPENMETRICS_CONTENT_TYPE
