import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Who } from '#shared/accounts/responses'
import * as t from '#server/db/schema/index'
import { rehearseNightly } from '#server/features/registration/rehearsals'
import { readMails } from '#server/features/mail/mails'
import { at, demoWorld, idOf, OPENS, person, sectionsNumbered, setTime, signOff, type World } from './world'

const DAY = 86_400_000
let world: World
let imke: Who & { id: number }
beforeAll(async () => {
  world = await demoWorld('rehearsals')
  imke = await person(world.db, 'Imke Varga')
})
afterAll(() => world.close())

/** What Imke was mailed of rehearsals, the newest first, after the work of that instant. */
async function told(at: number): Promise<string[]> {
  await setTime(world, at)
  await rehearseNightly(world.db, world.catalogContext)
  const mails = await readMails(world.db, imke.id, world.catalogContext)
  return mails.filter((mail) => mail.subject.includes('rehearsed')).map((mail) => mail.text)
}

describe('a rehearsal by night', () => {
  it('is nothing while the opening is more than a week away', async () => {
    expect(await told(OPENS - 7.1 * DAY)).toEqual([])
    const own = eq(t.rehearsal.studentId, idOf(imke))
    expect(await world.db.select().from(t.rehearsal).where(own)).toEqual([])
  })

  it('tells what the sheet comes to, once, and again where it comes to something else', async () => {
    const [first, ...more] = await told(OPENS - 3 * DAY)
    expect(more).toEqual([])
    expect(first).toBe(
      'Your registration opens on Mon 12 Apr 2027, 7:00 am. ' +
        'Before any of it: Your advisor has not signed off this term yet. ' +
        'As seats and checks are now, 4 of 4 lines would go through as picked. Without a section: ENDA 325.'
    )
    // The same day and the next night: nothing has changed, so nothing is told.
    expect(await told(OPENS - 3 * DAY + 3_600_000)).toHaveLength(1)
    expect(await told(OPENS - 2 * DAY)).toHaveLength(1)
    await signOff(world, await person(world.db, 'Orla Denholt'), idOf(imke))
    const [section] = await sectionsNumbered(world, 'MATH 231', '01')
    await world.db.update(t.section).set({ cancelled: true }).where(eq(t.section.id, section!.id))
    expect(await told(OPENS - 2 * DAY + 3_600_000)).toHaveLength(1)
    const [second] = await told(OPENS - DAY)
    expect(second).toContain('3 of 4 lines would go through as picked. MATH 231: ')
    expect(second).not.toContain('signed off')
  })

  it('is of the day on which the night ends, at two in the morning on campus', async () => {
    const on = async () => {
      const [row] = await world.db
        .select({ on: t.rehearsal.onDate })
        .from(t.rehearsal)
        .where(eq(t.rehearsal.studentId, idOf(imke)))
      return row!.on
    }
    await told(Date.parse('2027-04-12T05:59:00Z'))
    expect(await on()).toBe('2027-04-11')
    await told(Date.parse('2027-04-12T06:00:00Z'))
    expect(await on()).toBe('2027-04-12')
    expect((await at(world)).now).toBeLessThan(OPENS)
  })
})
