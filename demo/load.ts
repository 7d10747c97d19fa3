/** Writes the demo scenario into an empty, migrated database. */
import { connect } from '#server/db/connect'
import { courses } from './catalog'
import { writeAdvising } from './writing/advising'
import { writeCatalog } from './writing/catalog'
import { writeCollege } from './writing/college'
import type { Put } from './writing/numbers'
import { writeOffer } from './writing/offer'
import { writePeople } from './writing/people'
import { writeMoney, writeRegistrations } from './writing/registrations'
import { writeRoutes } from './writing/routes'
import { worldOf } from './writing/world'

const ROWS_A_STATEMENT = 500

export async function loadDemo(
  url: string
): Promise<{ students: number; sections: number; courses: number }> {
  const { db, close } = connect(url, { connections: 2 })
  const world = await worldOf()
  try {
    await db.transaction(async (tx) => {
      const put: Put = async (table, rows) => {
        for (let i = 0; i < rows.length; i += ROWS_A_STATEMENT) {
          await tx.insert(table).values(rows.slice(i, i + ROWS_A_STATEMENT) as never)
        }
      }
      await writeCollege(put, world.numbers)
      await writeCatalog(put, world.numbers)
      await writeOffer(put, world)
      await writePeople(put, world)
      await writeRoutes(put, world)
      await writeRegistrations(put, world)
      await writeMoney(put, world)
      await writeAdvising(put, world)
    })
  } finally {
    await close()
  }
  return { students: world.students.length, sections: world.offer.sections.length, courses: courses.length }
}
