<script setup lang="ts">
/** A cell of the board: what is dragged can be dropped here. */
const emit = defineEmits<{ over: [is: boolean]; dropped: [what: string] }>()
const cell = ref<HTMLElement>()
useDropPlace(cell, { over: (is) => emit('over', is), drop: (what) => emit('dropped', what) })
</script>

<template>
  <td ref="cell"><slot /></td>
</template>
