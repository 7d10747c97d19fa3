/** The search by itself, for the benchmark; everybody else asks through the audit. */
export { solve } from '..'
