export type {
  Finding,
  FindingCode,
  Refusal,
  RefusalCode,
  PlannedDetail,
  RouteChange,
  SingleChange
} from './finding'
