/** The page of the application is compressed like any other answer. */
import { getResponseHeader } from 'h3'
import { packedText } from '#server/http/versioned'

export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('beforeResponse', async (event, response) => {
    const type = getResponseHeader(event, 'content-type')
    if (typeof response.body !== 'string' || !String(type).startsWith('text/html')) return
    response.body = await packedText(event, response.body)
  })
})
