<script setup lang="ts">
import type { ProgramPlans } from '#shared/degree/drafts'
import { instantText } from '#shared/when'
import { capital, count, creditsText } from '#shared/words'

/** All programs in their versions, those that are being written, and the course lists that they ask for. */
useHead({ title: 'Programs and courses · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const places = useStaffPlaces()
const { known, failure, read: readPlans } = useRead(() => api<ProgramPlans>('/api/programs/drafts'))
const read = followed(readPlans, ({ kind }) => kind === 'term')
onMounted(() => (staff.load(), read()))
const writing = useTemplateRef<{ begin: (version?: number) => void }>('writing')
</script>

<template>
  <AppFrame :places="places">
    <ViewState
      :failure="staff.failure ?? failure"
      :ready="staff.ready && Boolean(known)"
      @retry="(staff.load(), read())"
    >
      <div class="page">
        <div class="page-head">
          <h1>Programs and courses</h1>
          <span class="quiet">a version for each catalog year; a student keeps the one of their year</span>
          <span class="push"><NewDraft ref="writing" :programs="known!.programs" /></span>
          <NuxtLink class="textlink" to="/courses/new">A new course</NuxtLink>
          <NuxtLink class="textlink" to="/terms">Terms</NuxtLink>
        </div>
        <section v-if="known!.drafts.length" aria-labelledby="drafts-title">
          <h2 id="drafts-title">Being written</h2>
          <ul class="card">
            <li v-for="one in known!.drafts" :key="one.id">
              <NuxtLink class="textlink" :to="`/programs/${one.id}`"
                >{{ one.title }}, {{ one.catalogYear }}</NuxtLink
              >
              <span class="quiet"
                >{{ one.code }} · {{ one.from === null ? 'a new program' : `begun with ${one.from}` }} ·
                changed {{ instantText(one.changedAt, college.zone) }} by {{ one.by }}</span
              >
            </li>
          </ul>
        </section>
        <section aria-labelledby="published-title">
          <h2 id="published-title">Published</h2>
          <v-table class="card">
            <thead>
              <tr>
                <th scope="col">Program</th>
                <th scope="col" class="wide">Kind</th>
                <th scope="col">Versions</th>
                <th scope="col"><span class="visually-hidden">What can be done</span></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in known!.programs" :key="one.code">
                <th scope="row">
                  <a class="textlink" :href="`/public/programs/${one.code}`" target="_blank">{{
                    one.title
                  }}</a>
                  <span class="quiet block"
                    >{{ one.code }} · {{ creditsText(one.versions[0]!.credits) }}</span
                  >
                </th>
                <td class="wide">{{ capital(one.kind) }}</td>
                <td>
                  <span v-for="version in one.versions" :key="version.id" class="block"
                    >{{ version.catalogYear }}
                    <span class="quiet">{{ count(version.students, 'student') }}</span></span
                  >
                </td>
                <td>
                  <v-text-btn
                    :aria-label="`Write the next version of ${one.title}`"
                    @click="writing?.begin(one.versions[0]!.id)"
                    >Write the next</v-text-btn
                  >
                </td>
              </tr>
            </tbody>
          </v-table>
        </section>
        <CourseLists />
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
section {
  margin-bottom: 16px;
}
h2 {
  margin-bottom: 4px;
}
ul {
  list-style: none;
  padding: 4px 14px;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  padding: 6px 0;
}
.block {
  display: block;
}
@media (max-width: 720px) {
  .wide {
    display: none;
  }
}
</style>
