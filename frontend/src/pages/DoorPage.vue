<script setup lang="ts">
import Button from 'primevue/button'

document.title = 'At the door · Keen Slate'
</script>

<template>
  <main class="door">
    <p class="name">Keen Slate</p>
    <section class="note on-paper">
      <h1>Nobody is signed in here</h1>
      <p>
        Come in by the link that Keen Slate printed when it was started. It works once; this command, in the folder of
        Keen Slate, prints another one:
      </p>
      <p class="command"><code>./slate link</code></p>
      <Button as="a" href="/" class="in" label="I am signed in: to the Shelf" />
    </section>
  </main>
</template>

<style scoped>
.door {
  max-width: 640px;
  margin: 0 auto;
  padding: 22px 24px 60px;
}
.name {
  font-weight: 700;
  padding-bottom: 48px;
}
.note {
  display: grid;
  gap: 14px;
  justify-items: start;
  color: var(--ink);
  padding: 30px 32px 32px 60px;
  border-radius: 2px;
  background: linear-gradient(90deg, transparent 38px, var(--margin-rule) 38px 40px, transparent 40px), var(--paper);
}
h1 {
  font-size: 1.3rem;
}
.in {
  text-decoration: none;
}
.command {
  font-size: 1.15rem;
}
code {
  font-family: ui-monospace, monospace;
  background: #eef3f4;
  padding: 4px 10px;
  border-radius: 2px;
}
</style>
