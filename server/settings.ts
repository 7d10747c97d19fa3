/** What this server's surroundings say of it, from the environment. */
import { z } from 'zod'

const settings = z.object({
  /** The address people open; where it is `https`, cookies and browsers are held to that. */
  RIDGEWAY_ORIGIN: z.url({ protocol: /^https?$/ }).optional(),
  /** Proxies in front, each of which adds the address it was asked from. */
  RIDGEWAY_PROXIES: z.coerce.number().int().min(0).max(5).default(0),
  /** Where payments are taken; without it, the stand-in takes them. */
  RIDGEWAY_CASHIER: z.url({ protocol: /^https?$/ }).optional(),
  /** Where transcripts are handed over; without it, the stand-in takes them. */
  RIDGEWAY_TRANSCRIPTS: z.url({ protocol: /^https?$/ }).optional(),
  /** Where mails are handed over; without it they are read in the application alone. */
  RIDGEWAY_SMTP: z.url({ protocol: /^smtps?$/ }).optional(),
  /** Hosts that webhooks may tell, `hooks.example.edu,hooks.example.edu:8443`. */
  RIDGEWAY_WEBHOOKS: z
    .string()
    .regex(/^[^\s,/]+(,[^\s,/]+)*$/, 'has to be hosts with commas between')
    .optional(),
  RIDGEWAY_MAIL_FROM: z.email().default('ridgeway@localhost.localdomain'),
  /** From which level on it is told what happens. */
  RIDGEWAY_LOG: z.enum(['silent', 'fatal', 'error', 'warn', 'info', 'debug']).default('warn'),
  /** Where figures are read, `127.0.0.1:9464`; without it, nowhere. */
  RIDGEWAY_METRICS: z
    .string()
    .regex(/^[^\s:]+:\d{2,5}$/, 'has to be HOST:PORT')
    .optional(),
  RIDGEWAY_DEMO: z.literal('1').optional()
})

export interface Settings {
  origin: URL | undefined
  isHttps: boolean
  proxies: number
  cashier: URL | undefined
  transcripts: URL | undefined
  smtp: URL | undefined
  webhooks: readonly string[] | undefined
  mailFrom: string
  log: z.infer<typeof settings>['RIDGEWAY_LOG']
  metrics: { host: string; port: number } | undefined
  demo: boolean
}

function hostAndPort(at: string | undefined): Settings['metrics'] {
  if (at === undefined) return undefined
  const [host, port] = at.split(':')
  return { host: host!, port: Number(port) }
}

let known: Settings | undefined

/** @throws Error naming the variable that is wrong. */
export function theSettings(): Settings {
  if (known) return known
  const read = settings.safeParse(process.env)
  if (!read.success) {
    const { path, message } = read.error.issues[0]!
    throw new Error(`${path.join('.')}: ${message}`)
  }
  const {
    RIDGEWAY_ORIGIN: at,
    RIDGEWAY_PROXIES: proxies,
    RIDGEWAY_CASHIER: cashier,
    RIDGEWAY_TRANSCRIPTS: transcripts,
    RIDGEWAY_SMTP: smtp,
    RIDGEWAY_WEBHOOKS: webhooks,
    RIDGEWAY_MAIL_FROM: mailFrom,
    RIDGEWAY_LOG: log,
    RIDGEWAY_METRICS: metrics,
    RIDGEWAY_DEMO: demo
  } = read.data
  const origin = at === undefined ? undefined : new URL(at)
  return (known = {
    origin,
    isHttps: origin?.protocol === 'https:',
    proxies,
    cashier: cashier === undefined ? undefined : new URL(cashier),
    transcripts: transcripts === undefined ? undefined : new URL(transcripts),
    smtp: smtp === undefined ? undefined : new URL(smtp),
    webhooks: webhooks?.split(','),
    mailFrom,
    log,
    metrics: hostAndPort(metrics),
    demo: demo === '1'
  })
}
