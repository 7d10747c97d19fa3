import { readChoices } from '#server/features/mail/digests'
import { endpoint } from '#server/http/endpoint'

/** What whoever asks wants to be mailed, and when. */
export default endpoint('GET /api/account/mail-choices', {}, ({ db, who }) => readChoices(db, who.id))
