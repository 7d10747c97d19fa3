#!/usr/bin/env node
/** `npx ridgeway …`: the core on the command line, without a database and without a network. */
import { register } from 'tsx/esm/api'

register()
const { main } = await import('./cli/main.ts')
process.exitCode = await main(process.argv.slice(2))
