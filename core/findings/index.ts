export type {
  Finding,
  FindingCode,
  Refusal,
  RefusalCode,
  PlannedDetail,
  RouteChange,
  SignOffCondition,
  SingleChange
} from './finding'
