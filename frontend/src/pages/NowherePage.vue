<template>
  <main class="nowhere">
    <h1>Nothing is kept at this address.</h1>
    <RouterLink to="/">Go to the Shelf</RouterLink>
  </main>
</template>

<style scoped>
.nowhere {
  padding: 4rem;
  display: grid;
  gap: 1rem;
}
</style>
