<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import type { FoundStudent, FoundStudents } from '#shared/offices/people'
import { count, STANDING_WORDS } from '#shared/words'

useHead({ title: 'Students · Ridgeway' })
const staff = useStaff()
const places = useStaffPlaces()
onMounted(() => staff.load())

const text = ref('')
const {
  known: found,
  failure,
  read
} = useRead(() => api<FoundStudents>('/api/people', { query: { find: text.value } }))
watch(text, useDebounceFn(read, 250))
onMounted(read)
const COLUMNS = [
  { key: 'name', title: 'Student' },
  { key: 'number', title: 'Number' },
  { key: 'programs', title: 'Programs' },
  { key: 'standing', title: 'Year', headerProps: { class: 'wide' }, cellProps: { class: 'wide' } },
  { key: 'holds', title: 'Holds', headerProps: { class: 'wide' }, cellProps: { class: 'wide' } },
  { key: 'acts', title: '', sortable: false, headerProps: { class: 'wide' }, cellProps: { class: 'wide' } }
]
/** The link that was made last: told here and nowhere again. */
const link = ref<{ name: string; address: string }>()
const { busy, problem, attempt } = useAttempt()
const makeLink = ({ account, name }: FoundStudent) =>
  attempt(async () => {
    const { key } = await api<{ key: string }>(`/api/accounts/${account}/link`, { method: 'POST' })
    link.value = { name, address: `${location.origin}/welcome/${key}` }
  })
</script>

<template>
  <AppFrame :places="places">
    <ViewState
      :failure="staff.failure ?? failure"
      :ready="staff.ready && Boolean(found)"
      @retry="(staff.load(), read())"
    >
      <div class="page">
        <div class="page-head">
          <h1>Students</h1>
          <span class="quiet" role="status">{{
            found!.all > found!.students.length
              ? `the first ${found!.students.length} of ${found!.all}`
              : count(found!.all, 'student')
          }}</span>
          <NuxtLink class="textlink push" to="/people/accounts">Accounts of the staff</NuxtLink>
          <NuxtLink class="textlink" to="/files">Files</NuxtLink>
          <span class="find"
            ><v-text-field v-model="text" label="number, name or program" hide-details maxlength="60"
          /></span>
        </div>
        <ToldOnce v-if="link" :text="link.address" @taken="link = undefined"
          >The link for <strong>{{ link.name }}</strong>, told here once. It sets the password anew, once,
          within seven days: hand it to them alone. They are told that there is one.</ToldOnce
        >
        <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
        <v-data-table
          v-if="found!.students.length"
          class="card"
          :headers="COLUMNS"
          :items="found!.students"
          item-value="id"
          :items-per-page="-1"
          hide-default-footer
          aria-label="Students found"
        >
          <template #[`item.name`]="{ item: row }">
            <NuxtLink class="textlink" :to="`/students/${row.id}/degree`">{{ row.name }}</NuxtLink>
            <span v-if="row.reported" class="stops block">says that the program is wrong</span>
          </template>
          <template #[`item.standing`]="{ item: row }"
            >{{ STANDING_WORDS[row.standing]
            }}<span v-if="row.block" class="quiet block">{{ row.block }}</span></template
          >
          <template #[`item.acts`]="{ item: row }">
            <v-text-btn
              :disabled="busy"
              :aria-label="`A link to sign in for ${row.name}`"
              @click="makeLink(row)"
              >New link</v-text-btn
            >
          </template>
          <template #[`item.holds`]="{ item: row }">{{ row.holds.join(', ') || '–' }}</template>
        </v-data-table>
        <p v-else class="card empty">
          No student fits “{{ text }}”. Try a number, a part of a name, or a program.
        </p>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.find {
  width: 280px;
}
.find :deep(.v-input) {
  width: 100%;
  max-width: none;
}
.block {
  display: block;
}
.empty {
  padding: 24px;
}
</style>
