export {
  assessedAfter,
  ENTRY_KINDS,
  LEDGER_ACCOUNTS,
  paymentOf,
  postings,
  type EntryKind,
  type LedgerAccount,
  type Posting
} from './ledger'
export {
  assess,
  centsOf,
  refundPercent,
  totalOf,
  tuitionFor,
  type Cents,
  type Charge,
  type ChargeItem,
  type Payer,
  type PricedSeat,
  type RefundStep,
  type TermPrices
} from './prices'
export { FIRST_NOTICE_DAYS, releaseDay, unpaidStep, type Unpaid } from './unpaid'
