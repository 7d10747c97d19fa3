import { endpoint } from '#server/http/endpoint'
import { readWaitingRequests } from '#server/features/advising/permissions'

/** Requests that wait for whoever asks. */
export default endpoint('GET /api/requests', {}, ({ db, who }) => readWaitingRequests(db, who))
