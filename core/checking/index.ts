export { checkCatalog, faultsBrought } from './catalog'
export { type Fault } from './fault'
export { checkProgram } from './program'
