<script setup lang="ts">
import type { DraftPage } from '#shared/degree/drafts'

/** A version of a program while it is written. */
useHead({ title: 'A version of a program · Ridgeway' })
const route = useRoute()
const staff = useStaff()
const places = useStaffPlaces()
const draft = shallowRef<DraftPage>()
const failure = ref<string>()
const address = computed(() => `/api/programs/drafts/${String(route.params.draft)}`)
async function read() {
  try {
    draft.value = undefined
    draft.value = await api<DraftPage>(address.value)
    failure.value = undefined
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    failure.value = error.message
  }
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
