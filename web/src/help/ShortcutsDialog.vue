<script setup lang="ts">
import { ElDialog } from 'element-plus'
import { shortcuts } from './shortcuts'

const open = defineModel<boolean>({ required: true })
</script>

<template>
  <ElDialog v-model="open" title="Keys" width="min(560px, 94vw)" :append-to-body="true">
    <table>
      <tbody>
        <tr v-for="s in shortcuts" :key="s.keys">
          <td><kbd v-for="k in s.keys.split(' or ')" :key="k">{{ k }}</kbd></td>
          <td>{{ s.does }}</td>
        </tr>
      </tbody>
    </table>
    <p class="soft">Long sessions bent over a table strain the back, the neck and the bridge wrist: take breaks, and stop at pain. Your club's or a physiotherapist's advice comes first.</p>
  </ElDialog>
</template>

<style scoped>
table {
  border-collapse: collapse;
  width: 100%;
}
td {
  padding: 4px 8px 4px 0;
  border-bottom: 1px solid var(--edge);
  vertical-align: top;
}
kbd {
  display: inline-block;
  border: 1px solid var(--edge);
  border-radius: 5px;
  padding: 1px 7px;
  margin-right: 5px;
  background: var(--panel-2);
  font: inherit;
  font-size: 0.88rem;
}
</style>
