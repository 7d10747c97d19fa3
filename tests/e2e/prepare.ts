/** Short ways to the morning of registration. */
import type { Page } from '@playwright/test'
import { expect, OPENS, setClock } from './site'

/** Plans a course of Autumn 2027 for whoever is on a page, picks a section, has it signed off, and stands at the opening. */
export async function prepare(
  page: Page,
  advisor: Page,
  course: string,
  ...sections: string[]
): Promise<number> {
  await setClock(page, '2027-04-09T13:40:00.000Z')
  const { student } = (await (await page.request.get('/api/session')).json()) as { student: number }
  const { route } = (await (await page.request.get(`/api/students/${student}`)).json()) as {
    route: { version: number; courses: { course: string; term: string }[] }
  }
  if (!route.courses.some((one) => one.course === course)) {
    const planned = { course, term: 'AU27', credits: 3 }
    await page.request.post(`/api/students/${student}/route`, {
      data: { version: route.version, change: { kind: 'add', planned } }
    })
  }
  const pick = await page.request.post(`/api/students/${student}/picks`, {
    data: { term: 'AU27', picks: [{ course, sections }] }
  })
  expect(pick.ok(), await pick.text()).toBe(true)
  const signed = await advisor.request.post(`/api/students/${student}/sign-off`, { data: { term: 'AU27' } })
  expect(signed.ok()).toBe(true)
  await setClock(page, OPENS)
  await page.goto(`/students/${student}/register`)
  return student
}
