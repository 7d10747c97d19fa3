<template>
  <CourseWhole />
</template>
