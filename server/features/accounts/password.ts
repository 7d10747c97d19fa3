/** Password hashes with scrypt (RFC 7914); the parameters stand in the hash. */
import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto'
import { Turns } from './turns'

const COST = { N: 2 ** 15, r: 8, p: 1 }
const BYTES = 32

/** Two at once leave the other threads of the pool, and a core, to everything else. */
const turns = new Turns(2, 200)

function derive(password: string, salt: Buffer, { N, r, p }: typeof COST): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    scrypt(password.normalize('NFC'), salt, BYTES, { N, r, p, maxmem: 256 * N * r }, (error, key) =>
      error ? reject(error) : resolve(key)
    )
  })
}

export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16)
  const key = await derive(password, salt, COST)
  return ['scrypt', COST.N, COST.r, COST.p, salt.toString('base64url'), key.toString('base64url')].join('$')
}

/** Of what is checked here: whether it is right, and then a hash to be kept in place of one with weaker parameters. */
interface Checked {
  isRight: boolean
  renewed: string | undefined
}

/** Verified against when no such account exists, so that the answer takes as long. */
const NOBODY = `scrypt$${COST.N}$${COST.r}$${COST.p}$${'A'.repeat(22)}$${'A'.repeat(43)}`

/**
 * Checks a password in its turn; `before` is done when the turn has come.
 *
 * @throws Refused when too many wait
 */
export function checkPassword(
  password: string,
  hash: string | undefined,
  before: () => Promise<void>
): Promise<Checked> {
  return turns.take(async () => {
    await before()
    const isRight = (await passwordMatches(password, hash ?? NOBODY)) && hash !== undefined
    const renewed = isRight && !hasCost(hash) ? await hashPassword(password) : undefined
    return { isRight, renewed }
  })
}

/** A new hash, in its turn. */
export const newHash = (password: string): Promise<string> => turns.take(() => hashPassword(password))

function hasCost(hash: string): boolean {
  return hash.startsWith(`scrypt$${COST.N}$${COST.r}$${COST.p}$`)
}

async function passwordMatches(password: string, hash: string): Promise<boolean> {
  const [kind, N, r, p, salt, key] = hash.split('$')
  if (kind !== 'scrypt' || !salt || !key) return false
  const wanted = Buffer.from(key, 'base64url')
  const found = await derive(password, Buffer.from(salt, 'base64url'), {
    N: Number(N),
    r: Number(r),
    p: Number(p)
  })
  return wanted.length === found.length && timingSafeEqual(wanted, found)
}
