import { clean, settled } from './axe'
import { enter, expect, go, leave, test, visit } from './site'

test.use({ scenario: 'staff' })

test('every view of the staff and the door are clean @long', async ({ site }) => {
  test.slow()
  const door = await visit(site)
  await door.goto('/sign-in')
  await expect(door.getByRole('button', { name: /^Imke Varga/ })).toBeVisible()
  await clean(door, 'sign-in')
  await leave(door)
  for (const [who, views] of [
    [
      'orla.denholt',
      ['/desk', '/students', '/hours', '/openings', '/students/1/route', '/students/1/degree']
    ],
    ['edda.whitlock', ['/terms', '/terms/SP28', '/openings']]
  ] as const) {
    const page = await enter(site, who)
    for (const view of views) {
      await go(page, view)
      await settled(page)
      await clean(page, view)
    }
    await leave(page)
  }
})
