/** `ridgeway checkroute …`: what is wrong with a route, and the ways out. */
import { checkRoute } from '#core/route'
import { isHard } from '#shared/route/fillingFaults'
import { changeText, findingSubject, findingText } from '#shared/route/texts'
import { DONE, NOT_ALL } from './options'
import { readCall } from './route'

export function checkroute(args: readonly string[]): number {
  const call = readCall(args, { wholeRoute: true })
  if (Array.isArray(call)) {
    for (const line of call) console.error(line)
    return 1
  }
  const findings = checkRoute(call.contextWith(call.planned))
  const ends = findings.some(isHard) ? NOT_ALL : DONE
  const plain = (code: string) => code
  if (call.values.json) {
    console.log(JSON.stringify({ format: 'ridgeway findings 1', findings }, null, 2))
    return ends
  }
  for (const finding of findings) {
    console.log(`${findingSubject(finding, plain)} ${findingText(finding, plain)}`)
    for (const way of finding.ways) console.log(`  ${changeText(way, plain)}`)
  }
  console.log(findings.length ? `${findings.length} findings.` : 'No findings.')
  return ends
}
