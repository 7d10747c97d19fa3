/** The theme: every colour of the application, light and dark, in one place. */
interface Palette {
  paper: string
  card: string
  ink: string
  quiet: string
  rule: string
  shade: string
  band: string
  bandQuiet: string
  dusk: string
  duskTint: string
  onDusk: string
  ember: string
  rowan: string
  /** Area hues in order, then free choice, then outside the degree. */
  hues: readonly string[]
}

const paper: Palette = {
  paper: '#F6F4EE',
  card: '#FFFFFF',
  ink: '#1C2530',
  quiet: '#5B6673',
  rule: '#DAD5C8',
  shade: '#ECE8DE',
  band: '#3A3768',
  bandQuiet: '#D3D1E4',
  dusk: '#3A3768',
  duskTint: '#EAE8F4',
  onDusk: '#FFFFFF',
  ember: '#B4512A',
  rowan: '#A8253A',
  hues: [
    '#3F6A9A',
    '#2B7A78',
    '#7A57A8',
    '#866A12',
    '#A3437F',
    '#5A7A2E',
    '#7D5A44',
    '#33708C',
    '#6E6A62',
    '#7B766C'
  ]
}

const night: Palette = {
  paper: '#14171C',
  card: '#1C2027',
  ink: '#E9E6DE',
  quiet: '#A3ABB6',
  rule: '#353A43',
  shade: '#272C34',
  band: '#2A2850',
  bandQuiet: '#C3C1DA',
  dusk: '#B5B1EA',
  duskTint: '#2C2B47',
  onDusk: '#17162B',
  ember: '#F0956B',
  rowan: '#F58A9B',
  hues: [
    '#86B0E0',
    '#6CC4C0',
    '#BFA0E6',
    '#D2B355',
    '#E58FC2',
    '#A5C873',
    '#CBA58C',
    '#7FBBD8',
    '#B4AFA5',
    '#A8A399'
  ]
}

/** Where free choice and what lies outside stand among the hues. */
export const FREE_HUE = 8
export const OUTSIDE_HUE = 9

const AREA_HUES = FREE_HUE

export interface AreaHue {
  hue: number
  /** More areas than hues: the hue repeats with a double edge. */
  doubled: boolean
}

/** Gives each area that it is told of the next hue; free choice has its own. */
export function hueGiver(): (area: { free?: boolean | undefined }) => AreaHue {
  let next = 0
  return ({ free }) => {
    if (free) return { hue: FREE_HUE, doubled: false }
    const given = { hue: next % AREA_HUES, doubled: next >= AREA_HUES }
    next++
    return given
  }
}

function colors(palette: Palette): Record<string, string> {
  const { hues, ...plain } = palette
  return {
    ...plain,
    ...Object.fromEntries(hues.map((hue, i) => [`hue${i}`, hue])),
    background: palette.paper,
    surface: palette.card,
    primary: palette.dusk,
    error: palette.rowan,
    warning: palette.ember,
    'on-background': palette.ink,
    'on-surface': palette.ink,
    'on-primary': palette.onDusk
  }
}

export const themes = {
  paper: { dark: false, colors: colors(paper) },
  night: { dark: true, colors: colors(night) }
}
