<script setup lang="ts">
import type { Term } from '#core/catalog'

/** What is noted on a term of the plan, for the student and the advisors. */
const props = defineProps<{ term: Term }>()
const student = useStudent()
const routeChanges = useRouteChanges()
const note = computed(() => student.view?.termNotes.find((one) => one.term === props.term.code))
</script>

<template>
  <NoteLine
    :text="note?.text ?? null"
    :about="term.name"
    :most="400"
    :own="student.own"
    @change="(text) => routeChanges.writeTermNote(term.code, text)"
  />
</template>
