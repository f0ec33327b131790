<script setup lang="ts">
import { nextTick, onMounted, watch } from 'vue'
import { useRoute } from 'vue-router'
import { chapters } from './pages'
import HandbookPicture from './HandbookPicture.vue'

/** What each figure means, how it is found, how exact it is: a paragraph each, with an address of its own. Works without a network. */
const route = useRoute()
async function show() {
  await nextTick()
  const id = route.hash.slice(1)
  const at = id ? document.getElementById(id) : null
  at?.scrollIntoView({ block: 'start' })
  at?.focus({ preventScroll: true })
}
onMounted(show)
watch(() => route.hash, show)
</script>

<template>
  <main class="place wide-place handbook" data-testid="handbook">
    <h1>Handbook</h1>
    <p class="soft">What the figures mean, how they are found, and how far to trust them.</p>
    <nav aria-label="Paragraphs">
      <p v-for="c in chapters" :key="c.title" class="row">
        <strong>{{ c.title }}</strong>
        <RouterLink v-for="p in c.paragraphs" :key="p.topic" :to="`#${p.topic}`">{{ p.title }}</RouterLink>
      </p>
    </nav>
    <section v-for="c in chapters" :key="c.title" :aria-label="c.title">
      <h2>{{ c.title }}</h2>
      <div class="articles">
        <article v-for="p in c.paragraphs" :id="p.topic" :key="p.topic" tabindex="-1" :aria-labelledby="`${p.topic}-title`">
          <div>
            <h3 :id="`${p.topic}-title`">{{ p.title }}</h3>
            <p>{{ p.means }}</p>
            <p><span class="soft">How it is found.</span> {{ p.found }}</p>
            <p><span class="soft">How exact.</span> {{ p.exact }}</p>
          </div>
          <HandbookPicture :topic="p.topic" />
        </article>
      </div>
    </section>
    <p class="soft caution">
      The figures are no substitute for a coach: the club, the rules and licensed practice come first. Take breaks, and stop at pain.
    </p>
  </main>
</template>

<style scoped>
nav {
  margin-bottom: var(--space-3);
}
nav p {
  margin: var(--space-2) 0;
  line-height: 1.7;
}
.articles {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(620px, 100%), 1fr));
  gap: 0 calc(2 * var(--space-6));
}
article {
  display: grid;
  grid-template-columns: minmax(0, 62ch) minmax(180px, 260px);
  gap: var(--space-3) var(--space-6);
  align-items: start;
  padding: var(--space-4) 0;
  border-top: 1px solid var(--edge);
  scroll-margin-top: var(--space-4);
}
article:focus {
  outline: none;
  box-shadow: inset 3px 0 0 var(--accent);
  padding-left: var(--space-4);
}
article p {
  margin: var(--space-2) 0 0;
  line-height: 1.5;
}
h2 {
  margin: var(--space-6) 0 var(--space-3);
}
h3 {
  margin: 0;
}
@media (max-width: 700px) {
  article {
    grid-template-columns: 1fr;
  }
}
</style>
