<script setup lang="ts">
import type { DraftWeek } from '#shared/week/responses'
import { FIRST_DRAFT } from '#shared/reading'

/** The draft weeks of the term: looked at, gone with, named, copied, shared, taken away. */
const emit = defineEmits<{ compare: [] }>()
const weeks = useWeeks()
const student = useStudent()
const naming = ref<{ week: DraftWeek | undefined; name: string }>()
const field = ref<HTMLInputElement>()
async function name(week: DraftWeek | undefined) {
  naming.value = { week, name: week?.name ?? weeks.freeName('New draft') }
  await nextTick()
  field.value?.select()
}
async function keep() {
  const { week, name: wanted } = naming.value!
  const text = wanted.trim()
  if (!text) return
  const done = week
    ? (await weeks.change(week, { name: text })) !== 'refused'
    : await weeks.make({ name: text })
  if (done) naming.value = undefined
}
const copy = (week: DraftWeek) =>
  weeks.make({ name: weeks.freeName(`${week.name}, changed`.slice(0, 56)), copyOf: week.id })
</script>

<template>
  <span v-if="!weeks.drafts.length" class="pill">{{ FIRST_DRAFT }}</span>
  <span
    v-for="week in weeks.drafts"
    :key="week.id"
    class="draft"
    :class="week.id === weeks.draft?.id ? 'on' : 'no-print'"
  >
    <v-bare-btn
      class="name"
      :aria-current="week.id === weeks.draft?.id ? 'true' : undefined"
      @click="weeks.look(week)"
    >
      {{ week.name }}<template v-if="week.goingWith"> · going with this one</template
      ><template v-if="week.shareKey"> · shared</template>
    </v-bare-btn>
    <v-menu v-if="student.own && week.id === weeks.draft?.id" location="bottom start">
      <template #activator="{ props: menu }">
        <v-bare-btn v-bind="menu" class="more" :aria-label="`What to do with ${week.name}`">
          <span aria-hidden="true">▾</span>
        </v-bare-btn>
      </template>
      <v-list density="compact">
        <v-list-item
          v-if="!week.goingWith"
          title="Go with this one"
          @click="weeks.change(week, { goingWith: true })"
        />
        <v-list-item title="Rename" @click="name(week)" />
        <v-list-item title="Copy" @click="copy(week)" />
        <v-list-item v-if="weeks.drafts.length > 1" title="Compare side by side" @click="emit('compare')" />
        <v-list-item
          v-if="!week.goingWith || weeks.drafts.length === 1"
          title="Take away"
          @click="weeks.drop(week)"
        />
      </v-list>
    </v-menu>
  </span>
  <form v-if="naming" class="naming" @submit.prevent="keep" @keydown.esc.stop="naming = undefined">
    <label
      ><span class="visually-hidden">Name of the draft week</span
      ><v-text-field ref="field" v-model="naming.name" maxlength="60" required
    /></label>
    <v-text-btn type="submit">{{ naming.week ? 'Keep' : 'Make it' }}</v-text-btn>
    <v-text-btn type="button" @click="naming = undefined">Cancel</v-text-btn>
  </form>
  <v-bare-btn v-else-if="student.own" class="pill new no-print" @click="name(undefined)"
    >+ new draft</v-bare-btn
  >
</template>

<style scoped>
.draft {
  display: inline-flex;
  align-items: center;
  border: 1px solid var(--rule);
  border-radius: 999px;
  background: var(--card);
  font-size: 12.5px;
}
.draft.on {
  background: var(--dusk-tint);
  border-color: var(--dusk);
  color: var(--dusk);
}
.name {
  padding: 2px 11px;
}
.more {
  min-width: 26px;
  min-height: 24px;
  text-align: center;
}
.new {
  color: var(--ink);
  padding: 2px 11px;
}
.naming {
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
</style>
