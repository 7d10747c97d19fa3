<script setup lang="ts">
/** Only passed through: the middleware sends everybody to their first place. */
</script>

<template>
  <div aria-busy="true" aria-label="Loading" />
</template>
