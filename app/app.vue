<script setup lang="ts">
useShell()
</script>

<template>
  <v-app>
    <NuxtPage />
  </v-app>
</template>
