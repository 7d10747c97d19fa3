/** The question behind an audit, for the benchmark; everybody else asks through the audit. */
export { questionOf } from '../question'
