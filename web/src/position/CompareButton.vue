<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { strokeOf } from '../domain/strokes'
import { mostChoices, useChoices } from './choices'

/** Lays a stroke of any list beside others, to be compared. */
const props = defineProps<{ stroke: Schemas['StrokeEntry']; what: string }>()
const choices = useChoices()
const stroke = computed(() => strokeOf(props.stroke))
const has = computed(() => choices.has(stroke.value))
const title = computed(() =>
  has.value ? 'Among the strokes to compare' : choices.isFull ? `already comparing ${mostChoices}` : 'Add to the strokes to compare',
)
</script>

<template>
  <ElButton
    size="small"
    text
    :disabled="has || choices.isFull"
    :title="title"
    :aria-label="`Compare ${what}`"
    data-testid="add-to-compare"
    @click.stop="choices.add(stroke)"
    >{{ has ? '✓' : 'Compare' }}</ElButton
  >
</template>
