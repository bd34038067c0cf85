<script setup lang="ts">
import { marked } from 'marked'
import guide from '../../../docs/guide.md?raw'
import TopBar from '../shell/TopBar.vue'

/** The guide of the repository, with its pictures, as a page of the application. */
const pictures = import.meta.glob<string>(['../../../docs/screenshots/bench-*.png', '../../../docs/guide/*.jpg'], {
  eager: true,
  query: '?url',
  import: 'default',
})
const html = Object.entries(pictures).reduce(
  (text, [path, address]) => text.replaceAll(`src="${path.replace('../../../docs/', '')}"`, `src="${address}"`),
  marked.parse(guide, { async: false }),
)
</script>

<template>
  <div class="page">
    <TopBar />
    <main class="scroll">
      <!-- eslint-disable-next-line vue/no-v-html -- our own text, which comes with the application -->
      <article data-test="guide" v-html="html" />
    </main>
  </div>
</template>

<style scoped>
main {
  padding: 22px;
}
article {
  max-width: 760px;
  margin: 0 auto;
  line-height: 1.55;
}
article :deep(h1),
article :deep(h2) {
  margin: 1.4em 0 0.5em;
}
article :deep(p),
article :deep(ul),
article :deep(ol),
article :deep(table) {
  margin: 0.7em 0;
}
article :deep(ul),
article :deep(ol) {
  padding-left: 1.4em;
}
article :deep(img) {
  max-width: 100%;
  border: 1px solid var(--line);
  border-radius: 3px;
}
article :deep(table) {
  border-collapse: collapse;
  width: 100%;
}
article :deep(th),
article :deep(td) {
  text-align: left;
  vertical-align: top;
  padding: 5px 14px 5px 0;
  border-bottom: 1px solid var(--line);
}
article :deep(a) {
  color: var(--ink);
}
</style>
