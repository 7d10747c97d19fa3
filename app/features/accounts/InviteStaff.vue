<script setup lang="ts">
import { invitationBody } from '#shared/accounts/requests'
import { STAFF_ROLES, type StaffAccounts } from '#shared/accounts/responses'
import { capital, ROLE_WORDS } from '#shared/words'

/** Invites somebody of the staff. */
const props = defineProps<{ known: StaffAccounts }>()
const emit = defineEmits<{ invited: [name: string, key: string | null] }>()
const { busy, problem, fields, attempt } = useAttempt()
const empty = () => ({
  ...{ name: '', signIn: '', mail: '', role: 'programAdvisor' as (typeof STAFF_ROLES)[number] },
  ...{ instructor: null as number | null, department: null as number | null },
  office: null as string | null
})
const draft = ref(empty())
const read = computed(() => invitationBody.safeParse(draft.value))
const roles = STAFF_ROLES.map((value) => ({ value, title: capital(ROLE_WORDS[value]) }))
const listed = (all: readonly { id: number; name: string }[]) =>
  all.map((one) => ({ value: one.id, title: one.name }))
/** `vesna.aldous`: as it is offered until something else is written. */
const usual = computed(() =>
  draft.value.name
    .normalize('NFD')
    .toLowerCase()
    .replace(/[^a-z\s-]/g, '')
    .trim()
    .replace(/\s+/g, '.')
)
watch(usual, (now, before) => {
  if (draft.value.signIn === before) draft.value.signIn = now
})
const invite = () =>
  attempt(async () => {
    const { name } = draft.value
    const { key } = await api<{ key: string | null }>('/api/accounts', {
      method: 'POST',
      body: read.value.data
    })
    draft.value = empty()
    emit('invited', name, key)
  })
const needed = computed(() => {
  const { role, instructor, department, office } = draft.value
  if (role === 'office') return office === null
  return (role === 'instructor' && instructor === null) || (role === 'department' && department === null)
})
</script>

<template>
  <form class="card" aria-labelledby="invite-title" @submit.prevent="invite">
    <h2 id="invite-title">Invite somebody</h2>
    <v-text-field v-model="draft.name" label="Name" maxlength="80" :error-messages="fields.get('name')" />
    <v-text-field
      v-model="draft.signIn"
      label="Signs in as"
      maxlength="60"
      autocapitalize="none"
      :error-messages="fields.get('signIn')"
    />
    <v-text-field
      v-model="draft.mail"
      label="Mail"
      type="email"
      maxlength="120"
      :error-messages="fields.get('mail')"
    />
    <v-select v-model="draft.role" label="Role" :items="roles" />
    <v-autocomplete
      v-if="draft.role === 'instructor'"
      v-model="draft.instructor"
      label="Teaches as"
      :items="listed(props.known.instructors)"
      :error-messages="fields.get('instructor')"
    />
    <v-select
      v-if="draft.role === 'department'"
      v-model="draft.department"
      label="Department"
      :items="listed(props.known.departments)"
      :error-messages="fields.get('department')"
    />
    <v-select
      v-if="draft.role === 'office'"
      v-model="draft.office"
      label="Office"
      :items="props.known.offices"
      no-data-text="No kind of hold is made yet"
      :error-messages="fields.get('office')"
    />
    <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
    <v-btn type="submit" variant="flat" color="primary" :disabled="busy || needed || !read.success"
      >Make the account</v-btn
    >
    <p class="quiet small">
      It has no password until its link is used. Students come to an advisor by an entry on their record, or
      are handed over.
    </p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 10px;
  justify-items: start;
  padding: 12px 14px;
}
form .v-input {
  width: 100%;
  max-width: none;
}
p {
  margin: 0;
}
</style>
