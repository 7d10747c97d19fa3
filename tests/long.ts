/** Long comparisons run a tenth by default, and whole with `npm run test:long`. */
export const LONG = process.env.RIDGEWAY_LONG === '1'
