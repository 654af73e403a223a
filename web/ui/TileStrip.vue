<template>
  <div class="strip"><slot /></div>
</template>

<style scoped>
.strip {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  background: var(--unto-surface);
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
}

.strip > :deep(* + *) {
  border-left: 1px solid var(--unto-rule);
}

@media (max-width: 700px) {
  .strip {
    grid-auto-flow: row;
    grid-template-columns: 1fr 1fr;
  }
}
</style>
