import { clean, settled } from './axe'
import { enter, expect, test } from './site'

test.use({ scenario: 'staff' })

for (const scheme of ['light', 'dark'] as const) {
  test(`every view of the staff and the door are clean, ${scheme}`, async ({ browser, site }) => {
    test.slow()
    const visitor = await browser.newContext({ baseURL: site.address, colorScheme: scheme })
    const door = await visitor.newPage()
    await door.goto('/sign-in')
    await expect(door.getByRole('button', { name: /^Imke Varga/ })).toBeVisible()
    await clean(door, `sign-in ${scheme}`)
    await visitor.close()
    for (const [who, views] of [
      ['orla.denholt', ['/desk', '/students', '/openings', '/students/1/route', '/students/1/degree']],
      ['edda.whitlock', ['/terms', '/openings']]
    ] as const) {
      const page = await enter(browser, site, who, { colorScheme: scheme })
      for (const view of views) {
        await page.goto(view)
        await settled(page)
        await clean(page, `${view} ${scheme}`)
      }
      await page.context().close()
    }
  })
}
