/** An audit as indented text. */
import type { AuditFile } from '#shared/degree/auditFile'
import { NEED_STATES } from '#shared/degree/texts'
import { REFUSED } from '#shared/route/texts'

const MARKS: Record<string, string> = { ...NEED_STATES, needed: 'NEEDED' }

export function tree(file: AuditFile): string {
  const lines: string[] = file.name ? [file.name] : []
  for (const program of file.programs) {
    const { earned, underWay, registered, planned, needed } = program.amounts
    lines.push(`${program.title}, catalog ${program.catalogYear}`)
    lines.push(
      `  ${earned} of ${program.credits} credits earned, ${underWay} under way, ${registered + planned} mapped, ${needed} needed`
    )
    lines.push(
      `  average ${written(program.average.overall)}, in the program ${written(program.average.program)}`
    )
    if (program.ended === 'limit') lines.push('  not proved to be the best reading: the limit was reached')
    for (const area of program.areas) {
      lines.push(`  ${area.title}: ${MARKS[area.state]}`)
      for (const need of area.needs) {
        const courses = need.courses
          .map((one) => `${one.course}${one.grade ? ` ${one.grade}` : ''}`)
          .join(', ')
        const open = need.missing
          ? `, ${missing(need)}`
          : need.waived
            ? `, waived: ${need.waived.reason}`
            : ''
        lines.push(`    ${need.title}: ${MARKS[need.state]}${courses ? `, ${courses}` : ''}${open}`)
      }
    }
    for (const one of program.conditions)
      lines.push(
        `  ${one.title}: ${one.status === null ? 'NOT MET' : one.status === 'earned' ? 'met' : 'met ahead'}`
      )
    if (program.entry) lines.push(`  entry: ${program.entry.met ? 'met' : 'NOT MET'}`)
    for (const one of program.outside)
      lines.push(`  outside: ${one.course}, ${REFUSED[one.why as keyof typeof REFUSED]}`)
  }
  for (const one of file.idle) lines.push(`no credit: ${one.course} ${one.grade ?? ''}, ${one.why}`)
  return lines.join('\n')
}

const written = (average: number | null) => (average === null ? '–' : average.toFixed(2))

function missing(need: AuditFile['programs'][number]['areas'][number]['needs'][number]): string {
  const { amount, subjects, parts, beyond } = need.missing!
  const some = [
    ...(amount > 0 ? [`${amount} ${need.measure} missing`] : []),
    ...(subjects > 0 ? [`${subjects} more subjects`] : []),
    ...parts.map((part) => `${part.amount} of ${part.from}`),
    ...(beyond ? ['it stays open whatever is still taken'] : [])
  ]
  return some.join(', ')
}
