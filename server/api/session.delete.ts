import { openEndpoint } from '../endpoint'

export default openEndpoint({}, async ({ event }) => {
  await clearUserSession(event)
})
