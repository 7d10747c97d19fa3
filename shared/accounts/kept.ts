/** All that is kept of a person, as it is handed to them. */
export interface KeptOfPerson {
  format: 'ridgeway person 1'
  name: string
  /** By table, as its rows lie there; instants in UTC. */
  tables: Record<string, Record<string, unknown>[]>
}
