/** Hard to guess, and of no other change; there is no other way where pages are not served safely. */
export function newKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  return Array.from(bytes, (one) => one.toString(16).padStart(2, '0')).join('')
}
