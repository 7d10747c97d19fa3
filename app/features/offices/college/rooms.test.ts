import { describe, expect, it } from 'vitest'
import { readRoomLines, roomLines } from './rooms'

const ROOMS = [
  { id: 7, name: '101', seats: 40 },
  { id: 8, name: 'Hall, upper', seats: 200 }
]

describe('rooms as lines', () => {
  it('come back as they were', () => {
    expect(readRoomLines(roomLines(ROOMS), ROOMS)).toEqual({ rooms: ROOMS })
  })
  it('keep their number by their name, with other seats', () => {
    expect(readRoomLines('101, 44\n\n 102 ; 12 ', ROOMS)).toEqual({
      rooms: [
        { id: 7, name: '101', seats: 44 },
        { id: null, name: '102', seats: 12 }
      ]
    })
  })
  it.each(['101', '101, many', ', 12', '101, 12345'])('say which line is none: %s', (line) => {
    expect(readRoomLines(`100, 1\n${line}`, [])).toEqual({ line: 2 })
  })
})
