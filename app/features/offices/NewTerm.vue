<script setup lang="ts">
import { SEASONS } from '#core/catalog'
import { newTermBody } from '#shared/offices/terms'
import { SEASON_WORDS } from '#shared/words'

/** A term by itself; what else there is to say of it is said on its page. */
const terms = useTerms()
const notice = useNotice()
const open = ref(false)
const heading = useId()
const empty = () => ({ code: '', name: '', season: 'autumn' as (typeof SEASONS)[number], start: '', end: '' })
const draft = ref(empty())
const { busy, problem, errors, send } = useDraftCheck(newTermBody, () => draft.value)
const seasons = SEASONS.map((value) => ({ value, title: SEASON_WORDS[value] }))
const make = () =>
  send(async (said) => {
    const { term } = await terms.makeOne(said)
    notice.say(`${said.name}: made, not published.`)
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
      <v-text-field v-model="draft.name" label="name" maxlength="40" :error-messages="errors('name')" />
      <v-text-field
        v-model="draft.code"
        label="code, such as AU27"
        maxlength="8"
        autocapitalize="characters"
        :error-messages="errors('code')"
      />
      <v-select v-model="draft.season" label="season" :items="seasons" />
      <v-text-field v-model="draft.start" type="date" label="first day" :error-messages="errors('start')" />
      <v-text-field v-model="draft.end" type="date" label="last day" :error-messages="errors('end')" />
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <div class="acts">
        <v-btn type="submit" variant="flat" color="primary" :disabled="busy">Make it</v-btn>
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
