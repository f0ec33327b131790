<script setup lang="ts">
import MapBar from './MapBar.vue'
import ReadList from './ReadList.vue'

/** What is on? */
</script>

<template>
  <MapBar />
  <div class="panel fills"><ReadList /></div>
</template>
