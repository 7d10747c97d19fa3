/**
 * The new value with every part that says the same as before replaced by the part that was there, so that
 * what is drawn from an unchanged part is not drawn again. Looks into plain objects and arrays only, and
 * writes into `now`.
 */
export function shareStructure<T>(before: unknown, now: T): T {
  if (Object.is(before, now)) return now
  if (!isPlain(before) || !isPlain(now) || Array.isArray(before) !== Array.isArray(now)) return now
  const old = before as Record<string, unknown>
  const fresh = now as Record<string, unknown>
  const keys = Object.keys(fresh)
  let same = Object.keys(old).length === keys.length
  for (const key of keys) {
    const kept = shareStructure(old[key], fresh[key])
    if (kept !== fresh[key]) fresh[key] = kept
    if (!Object.is(kept, old[key])) same = false
  }
  return same ? (before as T) : now
}

function isPlain(value: unknown): value is object {
  if (typeof value !== 'object' || value === null) return false
  const prototype: unknown = Object.getPrototypeOf(value)
  return prototype === Object.prototype || prototype === Array.prototype
}
