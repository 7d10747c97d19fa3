import { createEventStream } from 'h3'
import { studentParams } from '#shared/requests'
import { studentEndpoint } from '#server/http/endpoint'
import { listen } from '#server/http/live'
import { sessionOf, whenEnded } from '#server/features/accounts/sessions'
import { keyOf } from '#server/http/session'

/** Between two looks at whether the session of a stream is still there. */
const LOOK_MS = 20_000

/** Server-sent events (WHATWG HTML): changes of the student's routes, as they are committed, while one is signed in. */
export default studentEndpoint(
  'GET /api/students/:id/live',
  { params: studentParams },
  async ({ event, db, student, session }) => {
    const stream = createEventStream(event)
    const key = keyOf(event)!
    const leave = listen(student, (news) => void stream.push({ event: 'route', data: JSON.stringify(news) }))
    const close = () => void stream.close()
    const unhear = whenEnded(session.id, close)
    // A session may end on another server, or by its time.
    const look = setInterval(() => {
      sessionOf(db, key, Date.now(), false).then(
        (still) => (still ? stream.push({ event: 'still', data: '' }) : stream.close()),
        close
      )
    }, LOOK_MS)
    stream.onClosed(async () => {
      clearInterval(look)
      unhear()
      leave()
      await stream.close()
    })
    // Nothing is sent of an answer before its first words.
    void stream.push({ event: 'still', data: '' })
    return stream.send()
  }
)
