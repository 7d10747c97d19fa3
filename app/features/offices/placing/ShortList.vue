<script setup lang="ts" generic="Row">
/** A list of which the first rows are seen, and all where they are asked for. */
const props = defineProps<{ title: string; rows: readonly Row[]; first: number; none?: string | undefined }>()
const heading = useId()
const all = ref(false)
const shown = computed(() => (all.value ? props.rows : props.rows.slice(0, props.first)))
</script>

<template>
  <section class="card" :aria-labelledby="heading">
    <h2 :id="heading">{{ title }}</h2>
    <p v-if="!rows.length && none" class="quiet">{{ none }}</p>
    <ul v-else>
      <slot v-for="row in shown" :row="row" />
    </ul>
    <v-text-btn v-if="rows.length > first" :aria-expanded="all" @click="all = !all">{{
      all ? 'Show fewer' : `Show all ${rows.length}`
    }}</v-text-btn>
  </section>
</template>

<style scoped>
section {
  padding: 12px 15px;
}
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
p {
  margin: 4px 0 0;
}
</style>
