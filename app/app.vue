<script setup lang="ts">
import { useTheme } from 'vuetify'

const clock = useClock()
const theme = useTheme()
const { preferred } = useThemeChoice()
watchEffect(() => theme.change(preferred.value))

let stop: (() => void) | undefined
onMounted(() => (stop = clock.start()))
onUnmounted(() => stop?.())
</script>

<template>
  <v-app>
    <NuxtPage />
  </v-app>
</template>
