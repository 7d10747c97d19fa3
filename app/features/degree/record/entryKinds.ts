import type { Entry } from '#shared/record/entries'

/** What the registrar may enter on a record, in the order in which it is asked for. */
export const ENTRY_KINDS: { value: Entry['kind']; title: string }[] = [
  { value: 'grade', title: 'A grade, posted or put right' },
  { value: 'credit', title: 'Credit from elsewhere, or for a test' },
  { value: 'dropCredit', title: 'Credit from elsewhere, taken off' },
  { value: 'test', title: 'The score of a test' },
  { value: 'status', title: 'Standing, attendance, residency, block' },
  { value: 'addProgram', title: 'A program, or another version of one' },
  { value: 'dropProgram', title: 'A program, taken off' },
  { value: 'advisor', title: 'Who advises' }
]
