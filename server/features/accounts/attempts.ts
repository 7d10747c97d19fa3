/**
 * Wrong passwords, counted in the database so that all servers know: from one address for one name, for one name from
 * everywhere, from one address for all names. Who has used up what is allowed waits; nobody is shut out for long.
 */
import { createHash } from 'node:crypto'
import { RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible'
import type { Connection } from '#server/db/connect'
import { Refused } from '#server/http/problem'

const TABLE = 'sign_in_attempt'
/** So many wrong ones in so many seconds. */
const ALLOWED = {
  pair: { points: 5, duration: 60 },
  name: { points: 100, duration: 3600 },
  address: { points: 100, duration: 600 }
}
type Kind = keyof typeof ALLOWED
const KINDS = Object.keys(ALLOWED) as Kind[]

export class SignInAttempts {
  private readonly limiters: Record<Kind, RateLimiterMySQL>

  constructor({ pool, name }: Connection) {
    const limiter = (kind: Kind) =>
      new RateLimiterMySQL({
        storeClient: pool,
        storeType: 'pool',
        dbName: name,
        tableName: TABLE,
        tableCreated: true,
        clearExpiredByTimeout: true,
        keyPrefix: kind,
        ...ALLOWED[kind]
      })
    this.limiters = { pair: limiter('pair'), name: limiter('name'), address: limiter('address') }
  }

  /** Counts an attempt as a wrong one, until it is known to be right. @throws Refused while one has to wait. */
  async begin(name: string, address: string): Promise<void> {
    for (const kind of KINDS) {
      const wait = await this.limiters[kind].consume(keyOf(kind, name, address)).then(
        () => 0,
        (ended: unknown) => {
          if (ended instanceof RateLimiterRes) return Math.ceil(ended.msBeforeNext / 1000)
          throw ended
        }
      )
      if (wait > 0) throw tooMany(wait)
    }
  }

  async wasRight(name: string, address: string): Promise<void> {
    await this.limiters.pair.delete(keyOf('pair', name, address))
    for (const kind of ['name', 'address'] as const)
      await this.limiters[kind].reward(keyOf(kind, name, address))
  }
}

/** Neither names nor addresses are kept: some type their password into the field of the name. */
function keyOf(kind: Kind, name: string, address: string): string {
  const of = { pair: `${name}\n${address}`, name, address }
  return createHash('sha256').update(of[kind]).digest('hex')
}

function tooMany(seconds: number): Refused {
  const wait = seconds < 100 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`
  return new Refused(
    429,
    'wait',
    `Too many wrong passwords were given. Try again in ${wait}.`,
    undefined,
    seconds
  )
}
