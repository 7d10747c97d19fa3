import type { ChosenType, EventType } from './events'
import type { Scope } from './scopes'

/** Times are those of the machine, whatever the campus clock says. */
export interface ServiceToken {
  id: number
  name: string
  scopes: readonly Scope[]
  madeBy: string
  madeAt: number
  until: number
  usedAt: number | null
  state: 'holds' | 'ranOut' | 'ended'
}

export interface Delivery {
  id: number
  type: EventType
  state: 'waiting' | 'delivered' | 'givenUp'
  madeAt: number
  tries: number
  /** When it is tried next, where it waits. */
  nextAt: number | null
  /** The status that was answered last, or why there was none. */
  answer: string | null
}

export interface Webhook {
  id: number
  name: string
  address: string
  types: readonly ChosenType[]
  madeBy: string
  madeAt: number
  endedAt: number | null
  /** The last ones, the latest first. */
  deliveries: readonly Delivery[]
}

export interface Connections {
  tokens: readonly ServiceToken[]
  webhooks: readonly Webhook[]
  /** Hosts that may be told, as this server's configuration says. */
  hosts: readonly string[]
}

/** What is told once, when it is made. */
export interface TokenMade {
  token: number
  key: string
}
export interface WebhookMade {
  webhook: number
  secret: string
}
