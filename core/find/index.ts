export { conflictOf, lettingGo, reliefs, type Demands, type Relief } from './conflict'
export { countWeeks } from './count'
export { unbeaten } from './front'
export {
  fallsIn,
  findQuestion,
  SAFE_SEATS,
  settledGroups,
  weekOf,
  withWishes,
  type FindQuestion,
  type KeptHours,
  type Want,
  type Wish
} from './question'
export type { FoundWeek } from './problem'
export { bestWeeks, type BestWeeks, type FindEffort } from './search'
