export type { Finding, FindingCode, Refusal, RefusalCode, RouteChange } from './finding'
