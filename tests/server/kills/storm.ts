/**
 * A server of its own for a storm that is cut off: has students run what they picked, many at once, and says every receipt
 * on its way out. What fails is asked for again under the same key, as a browser does.
 */
import { courseCode, studentId, termCode } from '#core/ids'
import { connect } from '#server/db/connect'
import { whoIs } from '#server/features/accounts/accounts'
import { readCatalogContext } from '#server/features/catalog/context'
import { run } from '#server/features/registration/run'

const [url, students, courses, everAgain] = process.argv.slice(2)
const { db } = connect(url!, { connections: 12, lockWait: 5 })
const catalogContext = await readCatalogContext(db)
const codes = courses!.split(',').map((code) => courseCode(code))

async function go(id: number): Promise<void> {
  const account = Number(id)
  for (;;)
    try {
      const who = await whoIs(db, account)
      const asked = { term: termCode('AU27'), courses: codes, key: `storm ${id}` }
      const receipt = await run(db, who, studentId(id), asked, catalogContext)
      console.log(JSON.stringify({ student: id, receipt }))
      return
    } catch (error) {
      if (everAgain !== 'again') throw error
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
}

await Promise.allSettled(students!.split(',').map((id) => go(Number(id))))
process.exit(0)
