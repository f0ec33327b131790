<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { countWords } from '../../lib/formats'
import { useNotices } from '../../lib/notices'
import { useOutbox, type Waiting } from '../../lib/outbox'
import { useAttempt } from '../../lib/useAttempt'
import { useSession } from './session'

/** What was counted here and refused for good: why, and what can be done with it. Nothing of it is lost until it is thrown away. */
const outbox = useOutbox()
const sessions = useSession()
const router = useRouter()
const notices = useNotices()
const { attempt, busy } = useAttempt()

type Group = { key: string; why: string; what: string; isOfSession: boolean; items: Waiting[] }
const nouns: Record<string, [string, string]> = {
  attempt: ['attempt', 'attempts'],
  begin: ['session', 'sessions'],
  note: ['note', 'notes'],
  frame: ['shot of a frame', 'shots of a frame'],
}
function whatOf(items: Waiting[]): string {
  const kinds = new Set(items.map((w) => w.kind))
  const noun = kinds.has('attempt') ? nouns.attempt : (nouns[items[0].kind] ?? ['change', 'changes'])
  const count = kinds.has('attempt') ? items.filter((w) => w.kind === 'attempt').length : items.length
  return countWords(count, noun[0], noun[1])
}
/** By what it belongs to and why it was not taken. */
const groups = computed<Group[]>(() => {
  const found = new Map<string, Waiting[]>()
  for (const w of outbox.refused) {
    const key = `${w.session} ${w.refused}`
    found.set(key, [...(found.get(key) ?? []), w])
  }
  return [...found].map(([key, items]) => ({
    key,
    items,
    why: items[0].refused!,
    what: whatOf(items),
    isOfSession: items.some((w) => w.kind === 'attempt'),
  }))
})

const again = (g: Group) => attempt(() => outbox.retry(g.items), 'Could not send it')
const intoNew = (g: Group) =>
  attempt(async () => {
    const id = await sessions.moveToNew(g.items)
    if (outbox.toSend.some((w) => w.session === id))
      notices.show({ kind: 'info', text: 'It will go into a new session once there is a connection.' })
    else await router.push(`/practice/sessions/${id}`)
  }, 'Could not move it')
const throwAway = (g: Group) =>
  attempt(async () => {
    const { ElMessageBox } = await import('../../ui/messageBox')
    const isSure = await ElMessageBox.confirm(`${g.what} will be gone for good.`, 'Discard it?', {
      confirmButtonText: 'Discard it',
      cancelButtonText: 'Keep it',
    }).then(
      () => true,
      () => false,
    )
    if (isSure) await outbox.drop(g.items)
  }, 'Could not discard it')
</script>

<template>
  <section v-if="groups.length" class="not-taken" aria-labelledby="not-taken-title" data-testid="not-taken">
    <h2 id="not-taken-title">Not taken</h2>
    <div v-for="g in groups" :key="g.key" class="group">
      <p>
        <strong>{{ g.what }}</strong> counted on this device: {{ g.why }}
      </p>
      <div class="row">
        <ElButton size="small" :disabled="busy" data-testid="take-again" @click="again(g)">Try again</ElButton>
        <ElButton v-if="g.isOfSession" size="small" type="primary" :disabled="busy" data-testid="into-new-session" @click="intoNew(g)"
          >Into a new session</ElButton
        >
        <ElButton size="small" :disabled="busy" data-testid="throw-away" @click="throwAway(g)">Discard</ElButton>
      </div>
    </div>
  </section>
</template>

<style scoped>
.not-taken {
  border-left: 3px solid var(--danger);
  padding: var(--space-2) var(--space-4);
  margin-bottom: var(--space-4);
}
.not-taken h2 {
  color: var(--danger);
  margin: 0;
}
.group p {
  margin: var(--space-2) 0 var(--space-2);
}
</style>
