/** The packages: each is listed with what it is for, licences go with ours, contents are pinned. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'

const ROOT = join(import.meta.dirname, '..', '..')
const read = (name: string) => readFileSync(join(ROOT, name), 'utf8')
const json = <T>(name: string) => JSON.parse(read(name)) as T
interface Locked {
  version: string
  license?: string
  integrity?: string
  link?: boolean
  inBundle?: boolean
}
const { dependencies, devDependencies } =
  json<Record<'dependencies' | 'devDependencies', Record<string, string>>>('package.json')
const lock = Object.entries(json<{ packages: Record<string, Locked> }>('package-lock.json').packages).filter(
  ([path]) => path !== ''
)
const listed = [
  ...read('docs/dependencies.md').matchAll(/^\| `([^`]+)`\s*\| (.+?)\s*\| ([\w.-]+)\s*\|$/gm)
].map(([, name, purpose, licence]) => ({ name, purpose, licence }))

/** As they are written in the list, by SPDX names. */
const FREE =
  /^(?:MIT|MIT-0|ISC|0BSD|BSD-2-Clause|BSD-3-Clause|Apache-2\.0|BlueOak-1\.0\.0|CC0-1\.0|Unlicense|Python-2\.0|OFL-1\.1|MPL-2\.0|CC-BY-4\.0|CC-BY-3\.0)$/
/** Of several licences to choose from one is enough. */
const isFree = (licence: string) =>
  licence
    .replace(/^\(|\)$/g, '')
    .split(' OR ')
    .some((one) => FREE.test(one))
/** Says nothing in its description; its readme holds the MIT licence. */
const UNSAID = new Set(['node_modules/only'])

describe('packages', () => {
  it('are listed, each with what it is for and its licence, and none that is not used', () => {
    const used = [...Object.keys(dependencies), ...Object.keys(devDependencies)]
    expect(listed.map((one) => one.name).sort()).toEqual(used.sort())
    for (const { name, licence } of listed)
      expect([name, lock.find(([path]) => path === `node_modules/${name}`)?.[1].license]).toEqual([
        name,
        licence
      ])
  })

  it('have licences that go with ours, those that they need included', () => {
    const strange = lock.filter(
      ([path, { license, link }]) => !link && !UNSAID.has(path) && !(license && isFree(license))
    )
    expect(strange.map(([path, { license }]) => `${path}: ${license}`)).toEqual([])
  })

  it('are what was locked, bit by bit', () => {
    const loose = lock.filter(
      ([, { integrity, link, inBundle }]) =>
        !link && !inBundle && !/^sha512-[\w+/]{86}==$/.test(integrity ?? '')
    )
    expect(loose.map(([path]) => path)).toEqual([])
    for (const range of Object.values({ ...dependencies, ...devDependencies }))
      expect(range).toMatch(/^(?:npm:[@\w/-]+@)?\d+\.\d+\.\d+(?:-[\w.]+)?$/)
  })
})
