<script setup lang="ts">
import { balls, shadeOf } from '../domain/balls'

/** Once in the page: the light on balls, wood, rubber and pockets that every drawing of a table uses. */
</script>

<template>
  <svg class="defs" width="0" height="0" aria-hidden="true">
    <defs>
      <radialGradient v-for="b in balls" :id="`ball-${b}`" :key="b" cx="0.36" cy="0.3" r="0.78">
        <stop offset="0" :stop-color="shadeOf(b, 0.42)" />
        <stop offset="0.45" :stop-color="shadeOf(b, 0)" />
        <stop offset="1" :stop-color="shadeOf(b, -0.42)" />
      </radialGradient>
      <radialGradient id="cloth-light" cx="0.5" cy="0.46" r="0.72">
        <stop offset="0" stop-color="#176462" />
        <stop offset="0.6" stop-color="#125654" />
        <stop offset="1" stop-color="#0c4547" />
      </radialGradient>
      <radialGradient id="hole-depth" cx="0.5" cy="0.5" r="0.5">
        <stop offset="0.55" stop-color="#020506" />
        <stop offset="0.86" stop-color="#071012" />
        <stop offset="1" stop-color="#16211f" />
      </radialGradient>
      <linearGradient id="wood-grain" x1="0" y1="0" x2="0" y2="1">
        <stop offset="0" stop-color="#6b4730" />
        <stop offset="0.08" stop-color="#523524" />
        <stop offset="0.5" stop-color="#4b3122" />
        <stop offset="0.92" stop-color="#432a1d" />
        <stop offset="1" stop-color="#35211a" />
      </linearGradient>
      <linearGradient v-for="(d, way) in rubber" :id="`rubber-${way}`" :key="way" :x1="d[0]" :y1="d[1]" :x2="d[2]" :y2="d[3]">
        <stop offset="0" stop-color="#1d6a66" />
        <stop offset="0.3" stop-color="#0e4645" />
        <stop offset="1" stop-color="#07292b" />
      </linearGradient>
      <linearGradient v-for="(d, way) in rubber" :id="`shade-${way}`" :key="way" :x1="d[2]" :y1="d[3]" :x2="d[0]" :y2="d[1]">
        <stop offset="0" stop-color="#03191b" stop-opacity="0" />
        <stop offset="1" stop-color="#03191b" stop-opacity="0.42" />
      </linearGradient>
    </defs>
  </svg>
</template>

<script lang="ts">
/** From the nose to the back of a cushion that lies on this side of the drawing. */
const rubber: Record<string, [number, number, number, number]> = {
  left: [1, 0, 0, 0],
  right: [0, 0, 1, 0],
  top: [0, 1, 0, 0],
  bottom: [0, 0, 0, 1],
}
</script>

<style scoped>
.defs {
  position: absolute;
}
</style>
