import { describe, expect, it } from 'vitest'
import { studentId } from '#core/ids'
import { leftWithout, type Waiting } from './demand'

const waiting = (...all: [opens: number | null, needs: boolean][]): Waiting[] =>
  all.map(([opens, needs], i) => ({ student: studentId(i + 1), opens, needs }))
const left = (free: number, all: Waiting[]) =>
  leftWithout(free, all).map(({ student, surely }) => `${student}${surely ? '!' : '?'}`)

describe('who is left without a seat', () => {
  it('is nobody where there is one for each', () => {
    expect(left(3, waiting([1, true], [2, true], [2, true]))).toEqual([])
  })
  it('is surely whoever may register once all seats can be gone, and perhaps whoever shares the last ones', () => {
    expect(left(2, waiting([1, true], [2, true], [2, true], [3, true]))).toEqual(['2?', '3?', '4!'])
  })
  it('is only who needs it; others take seats all the same', () => {
    expect(left(1, waiting([1, false], [2, true], [3, false]))).toEqual(['2!'])
  })
  it('counts those for whom nothing opens yet as the last', () => {
    expect(left(1, waiting([null, true], [1, true]))).toEqual(['1!'])
    expect(left(1, waiting([null, true], [null, true]))).toEqual(['1?', '2?'])
  })
  it('agrees with every order in which those of an opening may come', () => {
    // By itself: all orders within each opening are gone through, and it is looked who ends up without a seat.
    const orders = (all: Waiting[]): Waiting[][] =>
      all.length < 2
        ? [all]
        : all.flatMap((one, i) => orders(all.toSpliced(i, 1)).map((rest) => [one, ...rest]))
    for (let seed = 0; seed < 200; seed++) {
      const all = waiting(
        ...Array.from({ length: 5 }, (_, i): [number | null, boolean] => [
          ((seed * 7 + i * i) % 3) + 1,
          (seed >> i) % 2 === 0
        ])
      )
      const free = seed % 5
      const runs = orders(all)
        .filter((order) => order.every((one, i) => i === 0 || order[i - 1]!.opens! <= one.opens!))
        .map((order) => new Set(order.slice(free).map((one) => one.student)))
      const without = (one: Waiting) => runs.filter((run) => run.has(one.student)).length
      const expected = all
        .filter((one) => one.needs && without(one) > 0)
        .map((one) => `${one.student}${without(one) === runs.length ? '!' : '?'}`)
      expect(left(free, all), String(seed)).toEqual(expected)
    }
  })
})
