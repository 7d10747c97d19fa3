/**
 * What a webhook is told: that something has changed, and of whom, never what it is now. The envelope (`type`,
 * `timestamp`, `data`) and the signature are those of the Standard Webhooks specification, version 1.
 */
import { z } from 'zod'

const students = z.object({
  students: z
    .array(z.object({ id: z.int(), number: z.string() }))
    .describe('Whose, by the number that addresses name and by the one that people know.')
})
const terms = z.object({
  terms: z
    .array(z.string())
    .describe('Codes of the terms that it is known to be about; none where it may be any.')
})

/** Kinds of events, with what each carries. */
export const EVENT_DATA = {
  'record.changed': students,
  'route.changed': students,
  'seats.changed': terms,
  'catalog.changed': terms,
  'requests.changed': z.object({}),
  'webhook.tested': z.object({})
} as const
export type EventType = keyof typeof EVENT_DATA

/** Those that may be chosen; a test comes without being chosen. */
export const EVENT_TYPES = [
  'record.changed',
  'route.changed',
  'seats.changed',
  'catalog.changed',
  'requests.changed'
] as const satisfies readonly EventType[]
export type ChosenType = (typeof EVENT_TYPES)[number]

export const EVENT_WORDS: Record<EventType, string> = {
  'record.changed': 'a record has changed: grades, seats, holds, plans signed off',
  'route.changed': 'a student has changed the route',
  'seats.changed': 'seats or lines of a term have changed',
  'catalog.changed': 'programs, terms or their sections were published or changed',
  'requests.changed': 'a request was made, answered or handed on',
  'webhook.tested': 'a test'
}

/** What is sent with each kind. */
export const eventBody = (type: EventType) =>
  z.object({
    type: z.literal(type),
    timestamp: z.iso.datetime().describe('When it was heard of, by the clock of the server.'),
    data: EVENT_DATA[type]
  })
