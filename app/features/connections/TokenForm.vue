<script setup lang="ts">
import { TOKEN_DAYS, tokenBody } from '#shared/connections/requests'
import type { TokenMade } from '#shared/connections/responses'
import { SCOPES, SCOPE_WORDS, type Scope } from '#shared/connections/scopes'

/** Makes a token for a program of an office. */
const emit = defineEmits<{ made: [name: string, key: string] }>()
const { busy, problem, fields, attempt } = useAttempt()
const empty = () => ({ name: '', scopes: [] as Scope[], days: 180 as (typeof TOKEN_DAYS)[number] })
const draft = ref(empty())
const read = computed(() => tokenBody.safeParse(draft.value))
const LENGTH_WORDS = { 30: '30 days', 180: 'half a year', 365: 'a year' }
const LENGTHS = TOKEN_DAYS.map((value) => ({ value, title: LENGTH_WORDS[value] }))
const make = () =>
  attempt(async () => {
    const body = read.value.data!
    const { key } = await api<TokenMade>('/api/connections/tokens', { method: 'POST', body })
    draft.value = empty()
    emit('made', body.name, key)
  })
</script>

<template>
  <form class="card" aria-labelledby="token-title" @submit.prevent="make">
    <h3 id="token-title">A new token</h3>
    <v-text-field
      v-model="draft.name"
      label="name of the program that asks"
      maxlength="80"
      :error-messages="fields.get('name')"
    />
    <fieldset>
      <legend>It may</legend>
      <v-checkbox
        v-for="one in SCOPES"
        :key="one"
        v-model="draft.scopes"
        :value="one"
        :label="SCOPE_WORDS[one]"
        hide-details
      />
    </fieldset>
    <v-select v-model="draft.days" label="holds for" :items="LENGTHS" />
    <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
    <v-btn type="submit" variant="flat" color="primary" :disabled="busy || !read.success"
      >Make the token</v-btn
    >
  </form>
</template>
