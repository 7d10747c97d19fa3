#!/usr/bin/env node
/** `npx ridgeway …`: the core on the command line, without a database and without a network. */
import { register } from 'tsx/esm/api'

// Whoever reads no further, as `head` does, has what they wanted.
process.stdout.on('error', (error) => {
  if (error.code !== 'EPIPE') throw error
  process.exit(0)
})
register()
const { main } = await import('./cli/main.ts')
process.exitCode = await main(process.argv.slice(2))
