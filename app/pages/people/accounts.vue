<script setup lang="ts">
import type { StaffAccount, StaffAccounts } from '#shared/accounts/responses'
import { instantText } from '#shared/when'
import { capital, count, ROLE_WORDS } from '#shared/words'

/** Who of the staff signs in, as whom: invited by a link that is told once, and ended. */
useHead({ title: 'Accounts · Ridgeway' })
const session = useWho()
const staff = useStaff()
const college = useCollege()
const notice = useNotice()
const places = useStaffPlaces()
onMounted(() => staff.load())

const { known, failure, read } = useRead(() => api<StaffAccounts>('/api/accounts'))
onMounted(read)

const text = ref('')
const withEnded = ref(false)
const shown = computed(() =>
  (known.value?.people ?? []).filter(
    (one) =>
      (withEnded.value || one.state !== 'ended') &&
      `${one.name} ${one.signIn} ${ROLE_WORDS[one.role]} ${one.actsFor ?? ''}`
        .toLowerCase()
        .includes(text.value.trim().toLowerCase())
  )
)
const ended = computed(() => (known.value?.people ?? []).filter((one) => one.state === 'ended').length)
const stateOf = ({ state, linkUntil }: StaffAccount) => {
  if (state === 'ended') return 'ended'
  const link = linkUntil === null ? '' : `link until ${instantText(linkUntil, college.zone)}`
  if (state === 'active') return link || 'signs in'
  return link ? `invited, ${link}` : 'invited, the link has run out'
}

/** The link that was made last: told here and nowhere again. */
const link = ref<{ name: string; address: string }>()
const told = (name: string, key: string | null) => {
  // They come in by the sign-on.
  if (key === null) return useNotice().say(`${name} has an account now, and comes in by the sign-on.`)
  link.value = { name, address: `${location.origin}/welcome/${key}` }
}
const { busy, problem, attempt } = useAttempt()
const again = (one: StaffAccount) =>
  attempt(async () => {
    const { key } = await api<{ key: string }>(`/api/accounts/${one.id}/link`, { method: 'POST' })
    told(one.name, key)
    await read()
  })
const asking = ref<StaffAccount>()
const end = () =>
  attempt(async () => {
    const one = asking.value!
    await api(`/api/accounts/${one.id}`, { method: 'DELETE' })
    asking.value = undefined
    notice.say(`${one.name} signs in no more.`)
    await read()
  })
const COLUMNS = [
  { key: 'name', title: 'Name' },
  { key: 'signIn', title: 'Signs in as', headerProps: { class: 'wide' }, cellProps: { class: 'wide' } },
  { key: 'role', title: 'Role' },
  { key: 'state', title: 'State', headerProps: { class: 'wide' }, cellProps: { class: 'wide' } },
  { key: 'acts', title: '', sortable: false }
]
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
          <h1>Accounts of the staff</h1>
          <span class="quiet" role="status">{{ count(shown.length, 'account') }}</span>
          <label v-if="ended"><v-checkbox-btn v-model="withEnded" /> with {{ ended }} ended</label>
          <span class="push find"><v-text-field v-model="text" label="name or role" hide-details /></span>
          <NuxtLink class="textlink" to="/people">Students</NuxtLink>
        </div>
        <div class="columns">
          <div>
            <ToldOnce v-if="link" :text="link.address" @taken="link = undefined"
              >The link for <strong>{{ link.name }}</strong>, told here once. It sets the password, once,
              within seven days: hand it to them alone.</ToldOnce
            >
            <p v-if="problem && !asking" class="stops" role="alert">{{ problem }}</p>
            <StudentLinks :sign-ins="known!.students" @mailed="read" />
            <v-data-table
              v-if="shown.length"
              class="card"
              :headers="COLUMNS"
              :items="shown"
              item-value="id"
              :items-per-page="-1"
              hide-default-footer
              aria-label="Accounts"
            >
              <template #[`item.role`]="{ item: row }"
                >{{ capital(ROLE_WORDS[row.role])
                }}<span v-if="row.actsFor" class="quiet block">{{ row.actsFor }}</span
                ><span v-if="row.advises" class="quiet block"
                  >advises {{ count(row.advises, 'student') }}</span
                ></template
              >
              <template #[`item.state`]="{ item: row }">{{ stateOf(row) }}</template>
              <template #[`item.acts`]="{ item: row }">
                <span class="acts">
                  <v-text-btn
                    :disabled="busy"
                    :aria-label="`A new link for ${row.name}`"
                    @click="again(row)"
                    >{{ row.state === 'ended' ? 'Invite again' : 'New link' }}</v-text-btn
                  >
                  <v-text-btn
                    v-if="row.state !== 'ended' && row.id !== session.who?.id"
                    :disabled="busy"
                    :aria-label="`End the account of ${row.name}`"
                    @click="((problem = ''), (asking = row))"
                    >End</v-text-btn
                  >
                </span>
              </template>
            </v-data-table>
            <p v-else class="card empty">Nobody of the staff fits “{{ text }}”.</p>
          </div>
          <InviteStaff :known="known!" @invited="(name, key) => (told(name, key), read())" />
        </div>
        <v-dialog
          :model-value="Boolean(asking)"
          max-width="460"
          aria-labelledby="end-title"
          @update:model-value="asking = undefined"
        >
          <div v-if="asking" class="card ending">
            <h2 id="end-title">End the account of {{ asking.name }}</h2>
            <p>
              {{ asking.name }} is signed out everywhere and signs in no more. What they did stays in the log
              under their name; they can be invited again.
            </p>
            <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
            <div class="acts">
              <v-btn variant="flat" color="error" :disabled="busy" @click="end">End it</v-btn>
              <v-btn @click="asking = undefined">Cancel</v-btn>
            </div>
          </div>
        </v-dialog>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.find {
  width: 220px;
}
.find :deep(.v-input) {
  width: 100%;
  max-width: none;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 340px);
  gap: 14px;
  align-items: start;
}
.block {
  display: block;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
}
.ending {
  display: grid;
  gap: 8px;
  justify-items: start;
  padding: 18px;
  color: var(--ink);
}
.empty {
  padding: 20px;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .page :deep(.wide) {
    display: none;
  }
}
</style>
