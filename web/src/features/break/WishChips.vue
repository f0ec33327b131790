<script setup lang="ts">
import { ElTag } from 'element-plus'
import { computed } from 'vue'
import { usePlans } from './plans'
import { wishesOf } from './wishes'

/** What is wished of the plan, each to be taken back with a click. */
const plans = usePlans()
const wishes = computed(() => wishesOf(plans.wishes))
</script>

<template>
  <div v-if="wishes.length" class="row" aria-label="Wishes" data-testid="wish-chips">
    <ElTag v-for="w in wishes" :key="w.key" closable disable-transitions @close="w.without(plans.preferences)">{{ w.words }}</ElTag>
  </div>
</template>
