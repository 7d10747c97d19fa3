/** What students and advisors have asked, said and settled, and what the college tells everybody. */
import { minutes } from '#core/time'
import * as t from '#server/db/schema/index'
import { courses } from '../catalog'
import { campusTime } from '../college'
import { guidance } from '../guidance'
import { holdKinds } from '../holds'
import { advisors } from '../staff'
import { demoTalk } from '../talk'
import type { Put } from './numbers'
import { advisorsOf, type World } from './world'

export async function writeAdvising(put: Put, world: World) {
  await put(t.guidance, guidance)
  await put(t.holdKind, holdKinds)
  await writeReviews(put, world)
  await writeTalk(put, world.numbers)
}

/** What was handed in, asked for and signed off. */
async function writeReviews(put: Put, { students, numbers: { accountId, courseId, termId } }: World) {
  await put(
    t.intention,
    students.flatMap((s) =>
      s.planned
        .filter((one) => (one.term === 'AU27' && s.id % 2 === 1) || (one.term === 'SP28' && s.id % 4 === 2))
        .map(({ term, course }) => ({
          studentId: s.id,
          termId: termId.get(term),
          courseId: courseId.get(course),
          at: campusTime(term === 'AU27' ? '2026-12-04T15:20' : '2027-04-06T15:20')
        }))
    )
  )
  await put(
    t.signOff,
    students.flatMap((s) => {
      if (!s.signedOff) return []
      const { by, at, courses: signed } = s.signedOff
      const sum = signed.reduce((total, code) => total + courses[courseId.get(code)! - 1]!.credits, 0)
      const signer = advisorsOf(s).includes(by) ? by : advisorsOf(s)[0]!
      return [
        {
          studentId: s.id,
          routeId: s.id,
          termId: termId.get('AU27'),
          byId: accountId.get(signer),
          at,
          courses: signed,
          creditsLeast: Math.max(1, sum - 4),
          creditsMost: Math.min(18, sum + 3),
          conditions: []
        }
      ]
    })
  )
  await put(
    t.review,
    students.flatMap((s) =>
      s.reviewAskedAt
        ? [
            {
              studentId: s.id,
              termId: termId.get('AU27'),
              note: s.reviewNote ?? null,
              askedAt: s.reviewAskedAt
            }
          ]
        : []
    )
  )
}

async function writeTalk(put: Put, { accountId, advisorId }: World['numbers']) {
  const talk = demoTalk((name) => accountId.get(name)!)
  await put(t.thread, talk.threads)
  await put(t.remark, talk.remarks)
  await put(t.threadRead, talk.reads)
  await put(t.agreed, talk.agreed)
  await put(t.talkRecord, talk.records)
  await put(
    t.offeredTime,
    advisors.flatMap(({ signIn, offered }) =>
      (offered?.days ?? []).map((weekday) => ({
        ...{ advisorId: advisorId.get(signIn)!, weekday, place: offered!.place, lengthMin: offered!.length },
        ...{ startsMin: minutes(offered!.start), endsMin: minutes(offered!.end) }
      }))
    )
  )
}
