<script setup lang="ts">
import { SEASONS } from '#core/catalog'
import { newTermBody } from '#shared/offices/terms'
import { SEASON_WORDS } from '#shared/words'

/** A term by itself; what else there is to say of it is said on its page. */
const terms = useTerms()
const notice = useNotice()
const open = ref(false)
const heading = useId()
const { busy, problem, fields, attempt } = useAttempt()
const empty = () => ({ code: '', name: '', season: 'autumn' as (typeof SEASONS)[number], start: '', end: '' })
const draft = ref(empty())
const read = computed(() => newTermBody.safeParse(draft.value))
const seasons = SEASONS.map((value) => ({ value, title: SEASON_WORDS[value] }))
/** What is wrong with a field: as the server said, or once something is written in it. */
function wrong(field: keyof ReturnType<typeof empty>): string | undefined {
  const issue = read.value.error?.issues.find((one) => one.path[0] === field)
  return fields.value.get(field) ?? (issue && draft.value[field] ? `This ${issue.message}.` : undefined)
}
const make = () =>
  attempt(async () => {
    const { term } = await terms.makeOne(read.value.data!)
    notice.say(`${draft.value.name}: made, not published.`)
    open.value = false
    draft.value = empty()
    await navigateTo(`/terms/${term}`)
  })
</script>

<template>
  <v-btn @click="open = true">Add a term</v-btn>
  <v-dialog v-model="open" max-width="520" :aria-labelledby="heading">
    <form class="card new-term" novalidate @submit.prevent="make">
      <h2 :id="heading">A term by itself</h2>
      <p class="quiet">
        Its deadlines and rules are as is usual at first, in one session; they are changed on its page.
      </p>
      <v-text-field v-model="draft.name" label="name" maxlength="40" :error-messages="wrong('name')" />
      <v-text-field
        v-model="draft.code"
        label="code, such as AU27"
        maxlength="8"
        autocapitalize="characters"
        :error-messages="wrong('code')"
      />
      <v-select v-model="draft.season" label="season" :items="seasons" />
      <v-text-field v-model="draft.start" type="date" label="first day" :error-messages="wrong('start')" />
      <v-text-field v-model="draft.end" type="date" label="last day" :error-messages="wrong('end')" />
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <div class="acts">
        <v-btn type="submit" variant="flat" color="primary" :disabled="busy || !read.success">Make it</v-btn>
        <v-btn @click="open = false">Cancel</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.new-term {
  display: grid;
  gap: 10px;
  padding: 18px;
  color: var(--ink);
}
.new-term h2,
.new-term p {
  margin: 0;
}
.new-term .v-input {
  width: 100%;
  max-width: none;
}
.acts {
  display: flex;
  gap: 10px;
}
</style>
