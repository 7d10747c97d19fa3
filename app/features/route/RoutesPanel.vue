<script setup lang="ts">
import { differenceOf, type PlanDifference } from '#core/route'
import type { RouteView, RouteVersion } from '#shared/route/responses'
import { routeFigures } from '#shared/degree/figures'
import { readStudent } from '#shared/reading'
import { ago } from '#shared/when'
import { count } from '#shared/words'

/** All routes of the student: looked at, made, copied, named, compared, chosen. */
const emit = defineEmits<{ close: [] }>()
const student = useStudent()
const routeChanges = useRouteChanges()
const college = useCollege()
const clock = useClock()
const heading = ref<HTMLElement>()
onMounted(() => heading.value?.focus())
const name = ref('')
const naming = ref<{ id: number; name: string; note: string }>()
const versions = shallowRef<{ route: RouteView; list: RouteVersion[] }>()
const shown = computed(() => student.view!.route)

/** What a route comes to, read like the chosen one. */
function summary(route: RouteView) {
  const reading = readStudent({ ...student.view!, route }, college.catalogContext!, student.stage.at)
  const { programs, finish, findings, busiest } = routeFigures(reading)
  return {
    route,
    courses: route.courses.length,
    needed: programs.reduce((sum, one) => sum + one.needed, 0),
    finish: finish?.name,
    findings,
    busiest,
    difference: differenceOf(shown.value.courses, route.courses)
  }
}
const list = computed(() => student.routes.map(summary))
const isShown = (route: RouteView) => route.id === shown.value.id

async function make(copyOf: number | null) {
  const wanted = name.value.trim()
  if (wanted && (await routeChanges.makeRoute({ name: wanted, copyOf }))) name.value = ''
}
async function rename() {
  const { id, name: wanted, note } = naming.value!
  if (await routeChanges.describeRoute(id, { name: wanted.trim(), note: note.trim() || null }))
    naming.value = undefined
}
async function showVersions(route: RouteView) {
  if (versions.value?.route.id === route.id) {
    versions.value = undefined
    return
  }
  const found = await api<RouteVersion[]>(
    `/api/students/${student.view!.student.id}/routes/${route.id}/versions`
  )
  versions.value = { route, list: found }
}
function differenceText({ added, removed, moved }: PlanDifference): string {
  return [
    ...added.map((p) => `${p.course} in ${college.shortTerm(p.term)}`),
    ...removed.map((p) => `without ${p.course}`),
    ...moved.map((m) => `${m.course} in ${college.shortTerm(m.to)}, not ${college.shortTerm(m.from)}`)
  ].join('; ')
}
</script>

<template>
  <section class="card routes" aria-labelledby="routes-title" @keydown.esc="emit('close')">
    <div class="line">
      <h2 id="routes-title" ref="heading" tabindex="-1">Routes</h2>
      <v-text-btn @click="emit('close')">Close</v-text-btn>
    </div>
    <v-table>
      <thead>
        <tr>
          <th scope="col">Route</th>
          <th scope="col">Courses</th>
          <th scope="col">Finish</th>
          <th scope="col">Busiest term</th>
          <th scope="col">Findings</th>
          <th scope="col">Against the one shown</th>
          <th scope="col"><span class="visually-hidden">Actions</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in list" :key="one.route.id ?? 0" :class="{ shown: isShown(one.route) }">
          <th scope="row">
            <strong>{{ one.route.name }}</strong>
            <span v-if="one.route.chosen" class="pill">chosen</span>
            <span class="quiet small block">
              <template v-if="one.route.version"
                >changed {{ ago(one.route.changedAt, clock.minute, college.zone) }} by
                {{ one.route.changedBy }}</template
              ><template v-if="one.route.seen">
                · seen by {{ one.route.seen.by }}
                {{
                  one.route.seen.version === one.route.version ? 'as it is' : 'before the last change'
                }}</template
              >
            </span>
            <span v-if="one.route.note" class="small block">{{ one.route.note }}</span>
          </th>
          <td>{{ one.courses }}</td>
          <td>{{ one.finish ?? `${one.needed} cr not placed` }}</td>
          <td>{{ one.busiest }} cr</td>
          <td>{{ one.findings }}</td>
          <td class="small">
            {{ isShown(one.route) ? 'shown' : differenceText(one.difference) || 'the same' }}
          </td>
          <td class="line">
            <v-text-btn
              v-if="!isShown(one.route)"
              :aria-label="`Show ${one.route.name}`"
              @click="student.shown = one.route.chosen ? undefined : one.route.id!"
            >
              Show
            </v-text-btn>
            <template v-if="student.own && one.route.id">
              <v-text-btn
                v-if="!one.route.chosen"
                :aria-label="`Choose ${one.route.name}`"
                @click="routeChanges.describeRoute(one.route.id, { chosen: true })"
              >
                Choose
              </v-text-btn>
              <v-text-btn
                :aria-label="`Name or note ${one.route.name}`"
                @click="naming = { id: one.route.id, name: one.route.name, note: one.route.note ?? '' }"
              >
                Name or note
              </v-text-btn>
              <v-text-btn
                v-if="!one.route.chosen"
                :aria-label="`Take ${one.route.name} away`"
                @click="routeChanges.dropRoute(one.route.id)"
              >
                Take away
              </v-text-btn>
            </template>
            <v-text-btn
              v-if="one.route.id"
              :aria-expanded="versions?.route.id === one.route.id"
              :aria-label="`Versions of ${one.route.name}`"
              @click="showVersions(one.route)"
            >
              Versions
            </v-text-btn>
          </td>
        </tr>
      </tbody>
    </v-table>
    <form v-if="naming" class="line" @submit.prevent="rename" @keydown.esc.stop="naming = undefined">
      <label>Name <v-text-field v-model="naming.name" maxlength="60" required /></label>
      <label class="wide">Note <v-text-field v-model="naming.note" maxlength="400" /></label>
      <v-btn type="submit" size="small">Keep</v-btn>
      <v-text-btn type="button" @click="naming = undefined">Cancel</v-text-btn>
    </form>
    <RouteVersions
      v-if="versions"
      v-bind="versions"
      :shown="isShown(versions.route)"
      @returned="versions = undefined"
    />
    <div v-if="student.own" class="line">
      <form class="line" @submit.prevent="make(shown.id)">
        <label>New route <v-text-field v-model="name" maxlength="60" placeholder="With an exchange" /></label>
        <v-btn type="submit" size="small" :disabled="!name.trim()">Copy of “{{ shown.name }}”</v-btn>
        <v-btn size="small" :disabled="!name.trim()" @click="make(null)">Empty</v-btn>
      </form>
      <label v-if="shown.id">
        <v-checkbox-btn
          :model-value="shown.advisorMayEdit"
          @update:model-value="
            routeChanges.describeRoute(shown.id, { advisorMayEdit: !shown.advisorMayEdit })
          "
        />
        my advisor may change “{{ shown.name }}”
      </label>
    </div>
    <p class="quiet small">{{ count(list.length, 'route') }}; Week and Register work with the chosen one.</p>
  </section>
</template>

<style scoped>
.routes {
  padding: 12px 16px;
  margin-bottom: 10px;
  overflow-x: auto;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
}
.line:first-child {
  justify-content: space-between;
}
.v-table :deep(table) {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  vertical-align: top;
  font-weight: 400;
  padding: 5px 10px 5px 0;
  border-top: 1px solid var(--rule);
}
thead th {
  border: 0;
  font-weight: 600;
}
.shown {
  background: var(--dusk-tint);
}
.block {
  display: block;
}
label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.wide {
  flex: 1;
}
.wide .v-input {
  flex: 1;
}
</style>
