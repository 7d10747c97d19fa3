/** What this server's surroundings say of it, from the environment. */
import { z } from 'zod'
import { STAFF_ROLES, type Role } from '#shared/accounts/responses'

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
  /** The issuer of an OpenID Connect sign-on, this application's name and secret there, and what it is called. */
  RIDGEWAY_SIGN_ON: z.url({ protocol: /^https?$/ }).optional(),
  RIDGEWAY_SIGN_ON_CLIENT: z.string().min(1).default('ridgeway'),
  RIDGEWAY_SIGN_ON_SECRET: z.string().min(1).optional(),
  RIDGEWAY_SIGN_ON_TITLE: z.string().min(1).max(60).default('the sign-on of the institution'),
  RIDGEWAY_SIGN_ON_SCOPE: z.string().min(1).default('openid profile email'),
  /** The claims that say the name to sign in with, and the groups. */
  RIDGEWAY_SIGN_ON_NAME: z.string().min(1).default('preferred_username'),
  RIDGEWAY_SIGN_ON_GROUPS: z.string().min(1).default('groups'),
  /** Which group has which role, `registrar=records-office,programAdvisor=advisors`. */
  RIDGEWAY_SIGN_ON_ROLES: z.string().optional(),
  /** Whether one may sign in with a password of this database. */
  RIDGEWAY_PASSWORDS: z.enum(['on', 'off']).default('on'),
  /** Of whom a second step is asked before anything else, where they sign in with a password. */
  RIDGEWAY_SECOND_STEP: z.enum(['nobody', 'staff']).default('nobody'),
  RIDGEWAY_DEMO: z.literal('1').optional()
})

export interface SignOnSettings {
  issuer: URL
  client: string
  secret: string | undefined
  title: string
  scope: string
  nameClaim: string
  groupsClaim: string
  /** The group that somebody of a role has to be in. */
  roles: ReadonlyMap<Role, string>
}

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
  signOn: SignOnSettings | undefined
  passwords: boolean
  secondStep: 'nobody' | 'staff'
  demo: boolean
}

function hostAndPort(at: string | undefined): Settings['metrics'] {
  if (at === undefined) return undefined
  const [host, port] = at.split(':')
  return { host: host!, port: Number(port) }
}

const LOCAL = ['127.0.0.1', '[::1]', 'localhost']

/** @throws Error naming the variable that is wrong */
function signOnIn(read: z.infer<typeof settings>): SignOnSettings | undefined {
  const wrong = (name: keyof typeof read, why: string) => new Error(`${name}: ${why}`)
  if (read.RIDGEWAY_SIGN_ON === undefined) {
    if (read.RIDGEWAY_PASSWORDS === 'off')
      throw wrong('RIDGEWAY_PASSWORDS', 'nobody could sign in without RIDGEWAY_SIGN_ON')
    return undefined
  }
  const issuer = new URL(read.RIDGEWAY_SIGN_ON)
  if (issuer.protocol === 'http:' && !LOCAL.includes(issuer.hostname))
    throw wrong('RIDGEWAY_SIGN_ON', 'has to be https, but for this machine itself')
  if (read.RIDGEWAY_ORIGIN === undefined)
    throw wrong('RIDGEWAY_ORIGIN', 'is needed, for the sign-on to lead back to')
  const roles = (read.RIDGEWAY_SIGN_ON_ROLES ?? '')
    .split(',')
    .filter(Boolean)
    .map((one): [Role, string] => {
      const [role, group] = one.split('=', 2).map((part) => part.trim())
      const known = STAFF_ROLES.find((staff) => staff === role)
      if (!known || !group)
        throw wrong(
          'RIDGEWAY_SIGN_ON_ROLES',
          `“${one}” is not ROLE=GROUP, the role one of ${STAFF_ROLES.join(', ')}`
        )
      return [known, group]
    })
  return {
    issuer,
    client: read.RIDGEWAY_SIGN_ON_CLIENT,
    secret: read.RIDGEWAY_SIGN_ON_SECRET,
    title: read.RIDGEWAY_SIGN_ON_TITLE,
    scope: read.RIDGEWAY_SIGN_ON_SCOPE,
    nameClaim: read.RIDGEWAY_SIGN_ON_NAME,
    groupsClaim: read.RIDGEWAY_SIGN_ON_GROUPS,
    roles: new Map(roles)
  }
}

let known: Settings | undefined

/** @throws Error naming the variable that is wrong. */
export const theSettings = (): Settings => (known ??= settingsIn(process.env))

/** @throws Error naming the variable that is wrong. */
export function settingsIn(surroundings: NodeJS.ProcessEnv): Settings {
  const read = settings.safeParse(surroundings)
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
  return {
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
    signOn: signOnIn(read.data),
    passwords: read.data.RIDGEWAY_PASSWORDS === 'on',
    secondStep: read.data.RIDGEWAY_SECOND_STEP,
    demo: demo === '1'
  }
}
