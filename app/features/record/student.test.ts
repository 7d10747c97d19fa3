import { beforeEach, expect, it, vi } from 'vitest'
import { reactive } from 'vue'
import type { Change } from '#shared/record/changes'
import type { StudentView } from '#shared/record/responses'
import { anew, answering, settled } from '../../testing/nuxt'
import { useStudent } from './student'
import { useRights } from './useRights'
import { useWorkingTerm } from './useWorkingTerm'

let server: ReturnType<typeof answering>
let queue: { byStudent: Map<number, { pending: { change: Change }[]; state: string }> }
let made: (told: { pending: { student: number; change: Change }; answer: unknown }) => void
let versionOf: (student: number, route: number | null) => number

const viewOf = (id: number, note: string | null, version = 1) => {
  const route = { id: 10 * id, version, courses: [], name: note ?? '' }
  return {
    ...{ student: { id }, relation: 'self', route, routes: [route], termNotes: [] },
    ...{ agreed: [], sections: [], openings: [] }
  } as unknown as StudentView
}
const note = (text: string): Change =>
  ({ kind: 'termNote', term: 'AU27', text, by: 'Imke Varga' }) as unknown as Change

beforeEach(() => {
  server = answering()
  queue = reactive({ byStudent: new Map() })
  anew({
    api: server.api,
    useRights,
    useWorkingTerm,
    useFollowedRecord: () => undefined,
    localStorage: { getItem: () => null, setItem: () => undefined },
    useNotice: () => ({ close: vi.fn(), say: vi.fn() }),
    useCollege: () => ({
      load: async () => undefined,
      stageFor: () => ({ value: { at: 0 } }),
      termsAhead: []
    }),
    useClock: () => ({ sync: async () => undefined }),
    useOffers: () => ({ byTerm: new Map() }),
    useQueue: () => ({
      get byStudent() {
        return queue.byStudent
      },
      onMade: (hear: typeof made) => (made = hear),
      versionsFrom: (read: typeof versionOf) => (versionOf = read)
    })
  })
})

it('shows the record that was asked for last, whichever answer comes first', async () => {
  const student = useStudent()
  void student.load(1)
  void student.load(4)
  await server.asked[1]!.answer(viewOf(4, 'of Bram'))
  await server.asked[0]!.answer(viewOf(1, 'of Imke'))
  expect(student.view?.student.id).toBe(4)
})

it('says that it could not be read only while nothing newer was read', async () => {
  const student = useStudent()
  void student.load(1)
  await server.asked[0]!.refuse(503, 'The server cannot be reached.')
  expect(student.failure).toBe('The server cannot be reached.')
  void student.reload()
  void student.reload()
  await server.asked[2]!.answer(viewOf(1, 'read'))
  await server.asked[1]!.refuse(503, 'Late.')
  expect([student.view?.route.name, student.failure]).toEqual(['read', undefined])
})

it('shows changes that are on their way at once, and takes them back where they are refused', async () => {
  const student = useStudent()
  void student.load(1)
  await server.asked[0]!.answer(viewOf(1, null))
  queue.byStudent = new Map([[1, { pending: [{ change: note('Abroad') }], state: 'sending' }]])
  await settled()
  expect(student.view?.termNotes).toMatchObject([{ term: 'AU27', text: 'Abroad' }])
  expect(student.onTheWay?.state).toBe('sending')
  queue.byStudent = new Map([[1, { pending: [], state: 'idle' }]])
  await settled()
  expect(student.view?.termNotes).toEqual([])
})

it('reads once more where the record was read before a change was answered', async () => {
  const student = useStudent()
  void student.load(1)
  await server.asked[0]!.answer(viewOf(1, null))
  void student.reload()
  made({ pending: { student: 1, change: note('Abroad') }, answer: null })
  await server.asked[1]!.answer(viewOf(1, 'as it was before the change'))
  expect(student.view?.termNotes).toMatchObject([{ text: 'Abroad' }])
  await server.asked.at(-1)!.answer(viewOf(1, 'as it is now'))
  expect(student.view?.route.name).toBe('as it is now')
})

it('knows the version of a route as the server said it last, of the student on screen alone', async () => {
  const student = useStudent()
  void student.load(1)
  await server.asked[0]!.answer(viewOf(1, null, 7))
  expect([versionOf(1, 10), versionOf(1, null), versionOf(4, 10)]).toEqual([7, 7, 0])
})

it('forgets everything of a student when another one is shown', async () => {
  const student = useStudent()
  void student.load(1)
  await server.asked[0]!.answer(viewOf(1, null))
  student.suggests = true
  student.shown = 10
  void student.load(4)
  expect([student.view, student.suggests, student.shown]).toEqual([undefined, false, undefined])
})
