import { closeDatabase } from '../endpoint'

export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('close', closeDatabase)
})
