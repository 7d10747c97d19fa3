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
/** Small controls that most of the later places have some of. */
const CONTROLS =
  /\/vuetify\/lib\/components\/(?:VCheckbox|VDialog|VTable|VTextField|VField|VInput|VCard|VMessages|VCounter|VRadio|VForm|VAlert|VLabel)\//
/** What the two places share in which courses and sections are looked for. */
const SEARCHES = /\/app\/ui\/Filter(?!Choices)\w+\.vue|\/sections\/useTermFacts/
const SHARED =
  /\/app\/ui\/(?:[^/.]+\.ts$|(?:SidePanel|NoteLine|HowAnswered|ToldOnce)\.vue)|\/core\/(?!find|fill)|(?<!\/app\/pages)\/shared\/|\/app\/features\/(?:record|accounts|news)\/[^/.]+\.ts$/
/** Packages that only some of the later places need, and that are large: whatever imports them stays with those places. */
const LARGE =
  /\/node_modules\/(?:zod|@regle|@codemirror|papaparse|yaml|minisearch|echarts|zrender|fflate|@atlaskit)\//
/** The same of our own. */
const APART =
  /programText|programCompletion|registration\/morning|\/Filter\w+\.vue|shared\/help|shared\/file(?:s|Shapes)|writtenFiles|auditFile|trial|filling|solver|oneRoster|sectionQuery|courseQuery|guidanceWords|registration\/typed|degree\/graduation|advising\/askingTexts/

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

/** Whether a module has something large come along with it. */
function bringsLarge(id: string, modules: Modules, known: Map<string, boolean>): boolean {
  const before = known.get(id)
  if (before !== undefined) return before
  // In a circle the answer is that of the others.
  known.set(id, false)
  const brings =
    LARGE.test(id) ||
    (!id.includes('/node_modules/') &&
      (modules.getModuleInfo(id)?.importedIds ?? []).some((one) => bringsLarge(one, modules, known)))
  known.set(id, brings)
  return brings
}

/** What one build needs for it: the rule, and a plugin that knows which modules there are. */
export function chunks() {
  const read = new Set<string>()
  const large = new Map<string, boolean>()
  let first: Set<string> | undefined
  return {
    plugin: {
      name: 'ridgeway:modules',
      moduleParsed: ({ id }: { id: string }) => void read.add(id)
    },
    manualChunks: (id: string, modules: Modules): string | undefined => {
      first ??= seenFirst(read, modules)
      if (first.has(id)) return 'first'
      if (CONTROLS.test(id)) return 'later'
      if (SEARCHES.test(id)) return 'searches'
      if (id.includes('node_modules') || !SHARED.test(id) || APART.test(id)) return undefined
      return bringsLarge(id, modules, large) ? undefined : 'later'
    }
  }
}
