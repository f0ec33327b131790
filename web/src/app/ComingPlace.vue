<script setup lang="ts">
/** A place that says what will be there, until it is; or that there is nothing. */
const props = defineProps<{ place: 'practice' | 'progress' | 'nowhere' }>()

const texts = {
  practice: {
    title: 'Practice',
    lines: [
      'Here you will set a routine, such as twenty of the same pot, count what goes in, and say what went wrong with the rest.',
      'Until then: set a shot up at the table, keep it, and come back to it from the library.',
    ],
  },
  progress: {
    title: 'Progress',
    lines: [
      'Here you will see how your chances move over the weeks, from counted attempts and frames.',
      'Until then: a frame written down shot by shot counts its breaks and where they end.',
    ],
  },
  nowhere: { title: 'There is nothing at this address', lines: ['It may have been mistyped, or what was there has moved.'] },
}
</script>

<template>
  <main class="place" :data-testid="props.place">
    <h1>{{ texts[props.place].title }}</h1>
    <p v-for="line in texts[props.place].lines" :key="line">{{ line }}</p>
    <p>
      <RouterLink to="/table">To the table</RouterLink>
      <RouterLink v-if="props.place === 'progress'" to="/frames">To the frames</RouterLink>
      <RouterLink v-if="props.place === 'practice'" to="/library">To the library</RouterLink>
    </p>
  </main>
</template>
