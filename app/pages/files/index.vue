<script setup lang="ts">
import type { RosterFile } from '#shared/oneRoster/read'
import type { ImportRow, OwnFiles } from '#shared/oneRoster/responses'
import { instantText } from '#shared/when'
import { count } from '#shared/words'
import { bringsIn, filesIn, packed } from '~/features/files/roster'

/** Everything as open files: taken away whole, and brought with a look at what it would change. */
useHead({ title: 'Files · Ridgeway' })
const college = useCollege()
const staff = useStaff()
const places = useStaffPlaces()
const { known: imports, failure, read } = useRead(() => api<ImportRow[]>('/api/imports'))
// Before there is a college nothing of it can be read, and its files can be brought.
onMounted(() => (staff.load(), read()))

const { busy, problem, attempt } = useAttempt()
const chosen = ref<File[]>([])
const bring = () =>
  attempt(async () => {
    const files = await filesIn(chosen.value).catch((error: unknown) => {
      if (!(error instanceof RangeError)) throw error
      throw new Failure(422, { code: 'unreadable', message: error.message })
    })
    const name = chosen.value
      .map((one) => one.name)
      .join(', ')
      .slice(0, 120)
    const { id } = await api<{ id: number }>('/api/imports', { method: 'POST', body: { name, files } })
    await navigateTo(`/files/${id}`)
  })
const take = () =>
  attempt(async () => {
    const files = await api<RosterFile[]>('/api/files/one-roster')
    saveBlob('ridgeway-oneroster.zip', await packed(files))
  })
const taken = ref(0)
const takeOwn = () =>
  attempt(async () => {
    const files: RosterFile[] = []
    for (let after: number | null = 0; after !== null;) {
      const lot: OwnFiles = await api<OwnFiles>('/api/files/own', { query: { after: String(after) } })
      files.push(...lot.files)
      taken.value = files.length
      after = lot.next
    }
    taken.value = 0
    saveBlob('ridgeway-files.zip', await packed(files))
  })
const STATES = { planned: 'looked at', applied: 'taken over', undone: 'taken back' } as const
</script>

<template>
  <AppFrame :places="places">
    <ViewState :failure="failure" :ready="Boolean(imports)" @retry="read">
      <div class="page">
        <div class="page-head">
          <h1>Files</h1>
          <span class="quiet">OneRoster 1.2, as CSV: what other systems of a college read and write</span>
          <NuxtLink class="textlink push" to="/connections">Other systems</NuxtLink>
          <NuxtLink class="textlink" to="/people">Students</NuxtLink>
        </div>
        <p v-if="problem" class="card stops" role="alert">{{ problem }}</p>
        <div class="halves">
          <form class="card" aria-labelledby="bring-title" @submit.prevent="bring">
            <h2 id="bring-title">Bring a set</h2>
            <p class="quiet">
              An archive, or files of one: places, terms, courses, sections, people, what they take and their
              grades. First you see what each line would change; nothing is taken over before you say so, and
              it can be taken back.
            </p>
            <v-file-input
              v-model="chosen"
              multiple
              label="Files"
              accept=".zip,.csv,application/zip,text/csv"
              hide-details
            />
            <v-btn type="submit" variant="flat" color="primary" :disabled="busy || !chosen.length"
              >See what it would change</v-btn
            >
          </form>
          <section class="card" aria-labelledby="take-title">
            <h2 id="take-title">Take everything along</h2>
            <p class="quiet">
              All of it as one archive, with the names and grades of all students. What the standard has no
              column for (credits, prerequisites, seats, hours) stands in columns that begin with “metadata.”,
              the grade scale in a file of our own. Credit from elsewhere, rooms, routes and what was said are
              not in it.
            </p>
            <v-btn :disabled="busy" @click="take">Save the archive</v-btn>
            <p class="quiet">
              Or in our own formats, as the command line reads them: the catalog with its terms and grades,
              lists, each version of each program, and each record with its route, under the student’s number.
            </p>
            <v-btn :disabled="busy" @click="takeOwn">Save it in our formats</v-btn>
            <p v-if="taken" role="status" class="quiet">{{ count(taken, 'file') }} so far</p>
          </section>
        </div>
        <section aria-labelledby="brought-title">
          <h2 id="brought-title">What was brought</h2>
          <p v-if="!imports!.length" class="card empty quiet">Nothing yet.</p>
          <v-table v-else class="card">
            <thead>
              <tr>
                <th scope="col">Files</th>
                <th scope="col">State</th>
                <th scope="col">Brings</th>
                <th scope="col">Bad lines</th>
                <th scope="col" class="wide">When, by whom</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in imports" :key="one.id">
                <th scope="row">
                  <NuxtLink class="textlink" :to="`/files/${one.id}`">{{ one.name }}</NuxtLink>
                </th>
                <td>{{ STATES[one.state] }}</td>
                <td>{{ count(bringsIn(one.counts), 'line') }}</td>
                <td>{{ one.faults || 'none' }}</td>
                <td class="wide quiet">{{ instantText(one.at, college.zone) }}, {{ one.by }}</td>
              </tr>
            </tbody>
          </v-table>
        </section>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.halves {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 14px;
  align-items: start;
  margin-bottom: 16px;
}
form,
.halves section {
  display: grid;
  gap: 10px;
  justify-items: start;
  padding: 14px;
}
form :deep(.v-input) {
  width: 100%;
}
h2 {
  margin-bottom: 4px;
}
.empty,
.card.stops {
  padding: 14px;
  margin-bottom: 12px;
}
@media (max-width: 900px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
  .wide {
    display: none;
  }
}
</style>
