<script setup lang="ts">
/** Seats that are taken, free, and more than there are, as squares. */
const props = defineProps<{ seats: { taken: number; capacity: number }; more: number }>()
/** Beyond so many, squares are counted by nobody. */
const MOST = 80
const after = computed(() => Math.max(props.seats.capacity, props.seats.taken + props.more))
const squares = computed(() =>
  Array.from({ length: Math.min(MOST, after.value) }, (_, i) => {
    const n = after.value - Math.min(MOST, after.value) + i
    if (n < props.seats.taken) return 'taken'
    return n < props.seats.taken + props.more ? 'asked' : 'free'
  })
)
</script>

<template>
  <p class="squares" aria-hidden="true"><span v-for="(is, n) in squares" :key="n" :class="is" /></p>
</template>

<style scoped>
.squares {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  margin: 2px 0 4px;
}
span {
  width: 11px;
  height: 11px;
  border-radius: 3px;
  border: 1px solid var(--quiet);
}
.taken {
  background: var(--quiet);
}
.asked {
  border: 2px solid var(--rowan);
}
</style>
