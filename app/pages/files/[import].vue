<script setup lang="ts">
import type { ImportPage } from '#shared/oneRoster/responses'
import { TABLES, type Table } from '#shared/oneRoster/tables'
import { count } from '#shared/words'
import { bringsIn, TABLE_WORDS } from '~/features/files/roster'

/** One set that was brought: what each file of it would change, its bad lines, and the changes one by one. */
useHead({ title: 'A set of files · Ridgeway' })
const route = useRoute()
const notice = useNotice()
const places = useStaffPlaces()
const staff = useStaff()
const address = computed(() => `/api/imports/${String(route.params.import)}`)
const page = ref(0)
const {
  known: brought,
  failure,
  read
} = useRead(() => api<ImportPage>(address.value, { query: { page: String(page.value) } }))
watch(page, read)
onMounted(() => (staff.load(), read()))

const leaveOut = ref<Table[]>([])
/** Single lines that are left out: `users 14`. */
const lines = ref<ReadonlySet<string>>(new Set())
const { busy, problem, fields, attempt } = useAttempt()
const rows = computed(() =>
  TABLES.flatMap((table) => {
    const of = brought.value?.counts[table] ?? {}
    const faults = brought.value?.faults.filter((one) => one.file === `${table}.csv`).length ?? 0
    if (!Object.keys(of).length && !faults) return []
    const { new: fresh = 0, changed = 0, same = 0, left = 0 } = of
    return [{ table, fresh, changed, same, left, faults }]
  })
)
const linesLeft = computed(() =>
  [...lines.value]
    .map((one) => ({ table: one.split(' ')[0] as Table, line: Number(one.split(' ')[1]) }))
    .filter((one) => isWanted(one.table))
)
const brings = computed(() => bringsIn(brought.value?.counts ?? {}, leaveOut.value) - linesLeft.value.length)
const apply = () =>
  attempt(async () => {
    const body = { leaveOut: leaveOut.value, lines: linesLeft.value }
    const asked = brings.value
    const taken = await api<{ lines: number }>(`${address.value}/apply`, { method: 'POST', body })
    const resting = asked - taken.lines
    notice.say(
      `${count(taken.lines, 'line')} taken over.${resting > 0 ? ` ${count(resting, 'line')} left out with those on which they rest.` : ''}`
    )
    await read()
  })
const undo = () =>
  attempt(async () => {
    await api(`${address.value}/undo`, { method: 'POST', body: {} })
    notice.say('Taken back: all is as it was before.')
    await read()
  })
const isWanted = (table: Table) => !leaveOut.value.includes(table)
const want = (table: Table, wanted: boolean | null) => {
  leaveOut.value = wanted ? leaveOut.value.filter((one) => one !== table) : [...leaveOut.value, table]
}
const wantLine = (line: string, wanted: boolean | null) => {
  const now = new Set(lines.value)
  if (wanted) now.delete(line)
  else now.add(line)
  lines.value = now
}
const CHANGES = { new: 'new', changed: 'changed', same: 'the same', left: 'left as it is' } as const
</script>

<template>
  <AppFrame :places="places">
    <ViewState :failure="failure" :ready="Boolean(brought)" @retry="read">
      <div class="page">
        <div class="page-head">
          <h1>{{ brought!.name }}</h1>
          <span class="pill">{{
            { planned: 'looked at, nothing taken over', applied: 'taken over', undone: 'taken back' }[
              brought!.state
            ]
          }}</span>
          <span class="push acts">
            <v-btn
              v-if="brought!.state === 'planned'"
              variant="flat"
              color="primary"
              :disabled="busy || !brings"
              @click="apply"
              >{{ brings ? `Take over ${count(brings, 'line')}` : 'Nothing to take over' }}</v-btn
            >
            <v-btn v-if="brought!.state === 'applied'" :disabled="busy" @click="undo">Take it back</v-btn>
          </span>
          <NuxtLink class="textlink" to="/files">Files</NuxtLink>
        </div>
        <p v-if="problem" class="card stops said" role="alert">{{ problem }} {{ fields.get('leaveOut') }}</p>
        <v-table class="card">
          <thead>
            <tr>
              <th scope="col">What</th>
              <th v-if="brought!.state === 'planned'" scope="col">Take over</th>
              <th scope="col">New</th>
              <th scope="col">Changed</th>
              <th scope="col" class="wide">The same</th>
              <th scope="col" class="wide">Left as it is</th>
              <th scope="col">Bad lines</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.table">
              <th scope="row">
                {{ TABLE_WORDS[row.table] }} <span class="quiet small wide">{{ row.table }}.csv</span>
              </th>
              <td v-if="brought!.state === 'planned'">
                <v-checkbox-btn
                  v-if="row.fresh + row.changed"
                  :model-value="isWanted(row.table)"
                  :aria-label="`Take over ${TABLE_WORDS[row.table]}`"
                  @update:model-value="want(row.table, $event)"
                />
              </td>
              <td>{{ row.fresh || '–' }}</td>
              <td>{{ row.changed || '–' }}</td>
              <td class="quiet wide">{{ row.same || '–' }}</td>
              <td class="quiet wide">{{ row.left || '–' }}</td>
              <td :class="{ stops: row.faults }">{{ row.faults || '–' }}</td>
            </tr>
          </tbody>
        </v-table>
        <section v-if="brought!.faults.length" class="card part" aria-labelledby="faults-title">
          <h2 id="faults-title">{{ count(brought!.faults.length, 'bad line') }}, not taken over</h2>
          <ul>
            <li v-for="(one, i) in brought!.faults" :key="i">
              <strong>{{ one.file }}{{ one.line ? `, line ${one.line}` : '' }}</strong> {{ one.message }}
            </li>
          </ul>
        </section>
        <section v-if="brought!.items.length" class="card part" aria-labelledby="changes-title">
          <h2 id="changes-title">
            Line by line
            <span class="quiet small">{{ count(brought!.all, 'line') }}</span>
          </h2>
          <v-pagination
            v-if="brought!.pages > 1"
            :model-value="page + 1"
            :length="brought!.pages"
            :total-visible="5"
            @update:model-value="page = $event - 1"
          />
          <v-table>
            <thead>
              <tr>
                <th v-if="brought!.state === 'planned'" scope="col">
                  <span class="visually-hidden">Take over</span>
                </th>
                <th scope="col">Line</th>
                <th scope="col">About</th>
                <th scope="col">Change</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in brought!.items" :key="`${one.table} ${one.line}`">
                <td v-if="brought!.state === 'planned'">
                  <v-checkbox-btn
                    v-if="one.change !== 'left' && isWanted(one.table)"
                    :model-value="!lines.has(`${one.table} ${one.line}`)"
                    :aria-label="`Take over ${one.table}, line ${one.line}`"
                    @update:model-value="wantLine(`${one.table} ${one.line}`, $event)"
                  />
                </td>
                <td class="quiet">{{ one.table }} {{ one.line }}</td>
                <th scope="row">{{ one.row.title || one.row.name || one.id }}</th>
                <td>
                  {{ CHANGES[one.change]
                  }}<template v-for="field in one.fields" :key="field.name"
                    >; {{ field.name }} {{ field.before || 'nothing' }} <span aria-hidden="true">→</span
                    ><span class="visually-hidden">to</span> {{ field.after }}</template
                  ><span v-if="one.reason" class="quiet">: {{ one.reason }}</span>
                </td>
              </tr>
            </tbody>
          </v-table>
        </section>
        <p v-else-if="!brought!.faults.length" class="card said">
          Nothing differs from what is here: every line is the same.
        </p>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.acts {
  display: flex;
  gap: 10px;
}
.part {
  margin-top: 14px;
  padding: 12px 14px;
}
.said {
  padding: 12px 14px;
  margin: 0 0 12px;
}
ul {
  list-style: none;
  padding: 0;
  margin-top: 4px;
}
li {
  padding: 3px 0;
}
@media (max-width: 720px) {
  .wide {
    display: none;
  }
}
</style>
