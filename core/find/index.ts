export { conflictOf, reliefs, type Demands, type Relief } from './conflict'
export { countWeeks } from './count'
export { findQuestion, weekOf, type FindQuestion, type KeptHours, type Want, type Wish } from './question'
export { bestWeeks, type BestWeeks, type FindEffort } from './search'
