/**
 * Which file a module of the application goes into. Left to themselves, modules that two places share become a file
 * each, and a first visit asks for fifty of them: what is seen first is one file, what later places share another.
 */

/** What the bundler tells of modules; the part of it that is read here. */
interface Modules {
  getModuleInfo: (id: string) => { importedIds: readonly string[]; isEntry: boolean } | null
}

/** What somebody who signs in sees first; the clock's bar stands on every page of the demo. */
const FIRST = /\/app\/(?:pages\/students\/\[id\](?:\/today)?|ui\/ClockBar)\.vue$/
const SHARED =
  /\/app\/ui\/|\/core\/(?!find|fill)|(?<!\/app\/pages)\/shared\/|\/app\/features\/(?:record|accounts|news)\//
/** What only some of the later places need, and is large. */
const APART =
  /requests\.ts|programText|programCompletion|useForm|useArranging|registration\/morning|\/Filter\w+\.vue|shared\/help|shared\/file(?:s|Shapes)|writtenFiles|auditFile|trial|weekFiles|filling|solver|oneRoster|courseSearch|sectionQuery|courseQuery|guidanceWords/

/** What the entry and the first pages import, directly or by others, without waiting. */
function seenFirst(read: Set<string>, modules: Modules): Set<string> {
  const reached = new Set<string>()
  const open = [...read].filter((id) => FIRST.test(id) || modules.getModuleInfo(id)?.isEntry)
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    if (reached.has(id)) continue
    reached.add(id)
    open.push(...(modules.getModuleInfo(id)?.importedIds ?? []))
  }
  return reached
}

/** What one build needs for it: the rule, and a plugin that knows which modules there are. */
export function chunks() {
  const read = new Set<string>()
  let first: Set<string> | undefined
  return {
    plugin: {
      name: 'ridgeway:modules',
      moduleParsed: ({ id }: { id: string }) => void read.add(id)
    },
    manualChunks: (id: string, modules: Modules): string | undefined => {
      first ??= seenFirst(read, modules)
      if (first.has(id)) return 'first'
      return !id.includes('node_modules') && SHARED.test(id) && !APART.test(id) ? 'later' : undefined
    }
  }
}
