/** What holds of a section, in a line for those who plan it. */
import { count, moneyText, STANDING_WORDS } from '#shared/words'
import type { SectionRules } from './requests'

interface Names {
  programs: readonly { code: string; title: string }[]
  blocks: readonly { code: string; title: string }[]
}

/** `10 places in line · placed by an office · only for BSc Soil · 5 seats kept for block Heron · fee 20.00`; empty for none */
export function saidOfRules(rules: SectionRules, { programs, blocks }: Names): string {
  const program = (code: string) => programs.find((one) => one.code === code)?.title ?? code
  const block = (code: string) => `block ${blocks.find((one) => one.code === code)?.title ?? code}`
  const only = rules.onlyFor && [
    ...rules.onlyFor.programs.map(program),
    ...rules.onlyFor.standings.map((one) => STANDING_WORDS[one])
  ]
  return [
    ...(rules.line ? [`${count(rules.line, 'place')} in line`] : ['no line']),
    ...(rules.officeOnly ? ['placed by an office'] : []),
    ...(rules.permissionNeeded ? ['the instructor agrees first'] : []),
    ...(rules.block === null ? [] : [block(rules.block)]),
    ...(only?.length ? [`only for ${only.join(', ')}`] : []),
    ...rules.reserved.map(
      (one) =>
        `${count(one.seats, 'seat')} kept for ${one.program === null ? block(one.block!) : program(one.program)}`
    ),
    ...(rules.fee ? [`fee ${moneyText(rules.fee)}`] : [])
  ].join(' · ')
}
