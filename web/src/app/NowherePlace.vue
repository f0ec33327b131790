<script setup lang="ts">
/** A place that is not there. */
</script>

<template>
  <main class="place" data-testid="nowhere">
    <h1>There is nothing at this address</h1>
    <p>The address may be mistyped, or the page has moved.</p>
    <p><RouterLink to="/table">To the table</RouterLink></p>
  </main>
</template>
