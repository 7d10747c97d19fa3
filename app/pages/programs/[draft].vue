<script setup lang="ts">
import type { DraftPage } from '#shared/degree/drafts'

/** A version of a program while it is written. */
useHead({ title: 'A version of a program · Ridgeway' })
const route = useRoute()
const staff = useStaff()
const places = useStaffPlaces()
const {
  known: draft,
  failure,
  read: readDraft
} = useRead(() => api<DraftPage>(`/api/programs/drafts/${String(route.params.draft)}`))
/** Anew: what is on screen gives way. */
function read() {
  draft.value = undefined
  return readDraft()
}
onMounted(() => (staff.load(), read()))
</script>

<template>
  <AppFrame :places="places">
    <ViewState
      :failure="staff.failure ?? failure"
      :ready="staff.ready && Boolean(draft)"
      @retry="(staff.load(), read())"
    >
      <ProgramDraft :draft="draft!" @reload="read" />
    </ViewState>
  </AppFrame>
</template>
