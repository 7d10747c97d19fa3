<script setup lang="ts">
useHead({ title: 'Courses · Ridgeway' })
</script>

<template>
  <CourseFinder />
</template>
