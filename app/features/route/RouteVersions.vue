<script setup lang="ts">
import { coursesBefore, differenceOf } from '#core/route'
import { changesText, changeText } from '#shared/route/texts'
import type { RouteVersion, RouteView } from '#shared/route/responses'
import { ago } from '#shared/when'

/** The versions of a route: who changed what and when, what is other since, and the way back to one. */
const props = defineProps<{ route: RouteView; list: readonly RouteVersion[]; shown: boolean }>()
const emit = defineEmits<{ returned: [] }>()
const student = useStudent()
const routeChanges = useRouteChanges()
const college = useCollege()
const clock = useClock()

/** What changed from an instant or a version to now; undefined where it is not kept as far back. */
function changedSince(isLater: (one: RouteVersion) => boolean): string | undefined {
  const { route, list } = props
  const later = list.filter(isLater)
  if (later.length === list.length && list.length > 0 && list.at(-1)!.version > 1) return undefined
  const before = coursesBefore(
    route.courses,
    later.toReversed().map((one) => one.change)
  )
  return changesText(differenceOf(before, route.courses), college.shortTerm) || 'nothing'
}
const WEEK_MS = 7 * 24 * 60 * 60 * 1000
/** Since last week, and since each sign-off: in words. */
const since = computed(() => {
  const moments = [
    { title: 'Since a week ago', at: clock.now - WEEK_MS },
    ...(props.route.chosen
      ? student.view!.signOffs.map(({ term, by, at }) => ({
          title: `Since ${by} signed off ${college.termName(term)}`,
          at
        }))
      : [])
  ]
  return moments.map(({ title, at }) => ({
    title,
    text: changedSince((one) => one.at > at) ?? 'more than is kept'
  }))
})
const compared = ref<number>()
async function returnTo(version: number) {
  if (await routeChanges.returnRoute(version)) emit('returned')
}
</script>

<template>
  <div>
    <h3>Versions of {{ route.name }}</h3>
    <dl v-if="list.length" class="since">
      <template v-for="one in since" :key="one.title">
        <dt>{{ one.title }}</dt>
        <dd>{{ one.text }}</dd>
      </template>
    </dl>
    <ol v-if="list.length" class="versions">
      <li v-for="one in list" :key="one.version">
        <span>{{ ago(one.at, clock.minute, college.zone) }}, {{ one.by }}:</span>
        {{ one.kind === 'undo' ? 'took back, ' : one.kind === 'redo' ? 'did again, ' : ''
        }}{{ changeText(one.change, college.shortTerm) }}
        <v-text-btn
          v-if="one.version !== route.version"
          :aria-expanded="compared === one.version"
          @click="compared = compared === one.version ? undefined : one.version"
        >
          What changed since
        </v-text-btn>
        <v-text-btn
          v-if="student.own && shown && one.version !== route.version"
          @click="returnTo(one.version)"
        >
          Return to this
        </v-text-btn>
        <p v-if="compared === one.version" class="quiet">
          {{ changedSince((other) => other.version > one.version) }}
        </p>
      </li>
    </ol>
    <p v-else class="quiet">Nothing has been changed yet.</p>
  </div>
</template>

<style scoped>
.since {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 2px 14px;
  margin-bottom: 6px;
}
.since dt {
  font-weight: 600;
}
.versions {
  list-style: none;
  padding: 0;
  max-height: 240px;
  overflow-y: auto;
}
.versions li {
  padding: 3px 0;
}
</style>
