import { endpoint } from '../../endpoint'
import { readCatalog } from '../../services/catalog/catalog'

export default endpoint({}, ({ db }) => readCatalog(db))
