import { endpoint } from '../../endpoint'
import { readDescriptions } from '../../services/catalog/catalog'

export default endpoint({}, ({ db }) => readDescriptions(db))
