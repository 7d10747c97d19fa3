/** The colours of the application as a style sheet, by day and by night: the same tokens, without its script. */
import { themes } from '#shared/tokens'

const kebab = (name: string) => name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)
const properties = (colors: Record<string, string>) =>
  Object.entries(colors)
    .map(([name, colour]) => `--${kebab(name)}:${colour}`)
    .join(';')
const hues = Object.keys(themes.paper.colors)
  .filter((name) => name.startsWith('hue'))
  .map((name) => `.hue-${name.slice(3)}{--hue:var(--${name})}`)

export const COLOURS_CSS = [
  `:root{${properties(themes.paper.colors)}}`,
  `@media (prefers-color-scheme:dark){:root{${properties(themes.night.colors)}}}`,
  ...hues
].join('\n')
