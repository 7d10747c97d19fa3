import { createEventStream } from 'h3'
import { studentId } from '#core/ids'
import { studentParams } from '#wire/bodies'
import { endpoint } from '../../../endpoint'
import { listen } from '../../../live'
import { ANYBODY, mustBe } from '../../../services/accounts/accounts'

/** Server-sent events (WHATWG HTML): changes of the student's routes, as they are committed. */
export default endpoint({ params: studentParams }, async ({ event, db, who, params }) => {
  const id = studentId(params.id)
  await mustBe(db, who, id, ...ANYBODY)
  const stream = createEventStream(event)
  const leave = listen(id, (news) => void stream.push({ event: 'route', data: JSON.stringify(news) }))
  stream.onClosed(async () => {
    leave()
    await stream.close()
  })
  return stream.send()
})
