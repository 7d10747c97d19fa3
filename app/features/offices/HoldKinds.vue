<script setup lang="ts">
import type { HoldKind } from '#shared/offices/holds'
import { holdKindBody, type HoldKindSaid } from '#shared/offices/requests'

/** What holds there are: what each stops, and what its student reads. Holds that stand stay as they were placed. */
const props = defineProps<{ kinds: readonly HoldKind[] }>()
const offices = useOffices()
const notice = useNotice()
const { busy, problem, attempt } = useAttempt()
const open = ref(false)
const heading = useId()
const empty = (): HoldKindSaid => ({
  ...{ title: '', office: '', howToLift: '' },
  ...{ stopsRegistration: true, stopsTranscript: false, takesAmount: false }
})
/** The one that is changed; null for a new one. */
const chosen = ref<number | null>(null)
const draft = ref(empty())
const items = computed(() => [
  { value: null, title: 'a new kind' },
  ...props.kinds.map((one) => ({ value: one.id, title: `${one.title} · ${one.office}` }))
])
watch(chosen, (id) => {
  const { id: _, ...said } = props.kinds.find((one) => one.id === id) ?? { id, ...empty() }
  draft.value = said
})
const read = computed(() => holdKindBody.safeParse(draft.value))
const save = () =>
  attempt(async () => {
    await offices.changeKind(chosen.value, read.value.data!)
    notice.say(`${draft.value.title}: saved. Holds that stand stay as they were placed.`)
    open.value = false
  })
const drop = () =>
  attempt(async () => {
    await offices.changeKind(chosen.value, null)
    notice.say(`${draft.value.title} is not placed any more. Holds that stand stay.`)
    chosen.value = null
    open.value = false
  })
</script>

<template>
  <v-btn @click="open = true">Kinds of holds</v-btn>
  <v-dialog v-model="open" max-width="560" :aria-labelledby="heading">
    <form class="card kinds" @submit.prevent="save">
      <h2 :id="heading">Kinds of holds</h2>
      <v-select v-model="chosen" label="which" :items="items" />
      <v-text-field v-model="draft.title" label="called" maxlength="80" />
      <v-text-field v-model="draft.office" label="office that lifts it" maxlength="80" />
      <v-textarea
        v-model="draft.howToLift"
        label="what the student reads: how it is lifted"
        rows="2"
        auto-grow
        maxlength="600"
      />
      <div class="stops-what">
        <label><v-checkbox-btn v-model="draft.stopsRegistration" /> stops registration</label>
        <label><v-checkbox-btn v-model="draft.stopsTranscript" /> stops transcripts</label>
        <label><v-checkbox-btn v-model="draft.takesAmount" /> an amount is owed</label>
      </div>
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <div class="acts">
        <v-btn type="submit" variant="flat" color="primary" :disabled="busy || !read.success">{{
          chosen === null ? 'Make it' : 'Save it'
        }}</v-btn>
        <v-btn v-if="chosen !== null" :disabled="busy" @click="drop">Take it away</v-btn>
        <v-btn @click="open = false">Cancel</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.kinds {
  display: grid;
  gap: 10px;
  padding: 18px;
  color: var(--ink);
}
.kinds h2,
.kinds p {
  margin: 0;
}
.kinds .v-input {
  width: 100%;
  max-width: none;
}
.stops-what {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
.stops-what label {
  display: inline-flex;
  align-items: center;
  gap: 5px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
</style>
