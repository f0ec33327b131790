<script setup lang="ts">
import { ElButton } from 'element-plus'
import { errorsShown } from '../lib/estimates'

/** Tells how sure the figures of a list are, or no longer. */
</script>

<template>
  <ElButton
    size="small"
    :type="errorsShown ? 'primary' : undefined"
    :aria-pressed="errorsShown"
    title="How sure the figures are: their standard error"
    data-testid="errors"
    @click="errorsShown = !errorsShown"
    >± errors</ElButton
  >
</template>
