/** Rooms of a building as lines of text: `101, 40` is room 101 with 40 seats. */
import type { Building } from '#shared/offices/college'

export type Room = Building['rooms'][number]

export const roomLines = (rooms: readonly Room[]): string =>
  rooms.map(({ name, seats }) => `${name}, ${seats}`).join('\n')

/** The rooms of a text, those that were there before by their numbers; or which line cannot be read. */
export function readRoomLines(text: string, before: readonly Room[]): { rooms: Room[] } | { line: number } {
  const rooms: Room[] = []
  for (const [i, line] of text.split('\n').entries()) {
    if (!line.trim()) continue
    const read = /^\s*(.+?)\s*[,;\t]\s*(\d{1,4})\s*$/.exec(line)
    if (!read) return { line: i + 1 }
    const name = read[1]!
    rooms.push({ id: before.find((one) => one.name === name)?.id ?? null, name, seats: Number(read[2]) })
  }
  return { rooms }
}
