import { createHash } from 'node:crypto'

/** What is kept of a key that somebody else holds (SHA-256, as hexadecimal digits): what leaks lets nobody in. */
export const hashOf = (key: string): string => createHash('sha256').update(key).digest('hex')
