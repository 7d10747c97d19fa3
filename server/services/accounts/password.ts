/** Password hashes with scrypt (RFC 7914); the parameters stand in the hash. */
import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto'

const COST = { N: 2 ** 15, r: 8, p: 1 }
const BYTES = 32

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

export async function passwordMatches(password: string, hash: string): Promise<boolean> {
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
