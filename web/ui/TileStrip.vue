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

/* As many beside each other as have room for their figures. */
@media (max-width: 1100px) {
  .strip {
    grid-auto-flow: row;
    grid-template-columns: repeat(auto-fit, minmax(8.4rem, 1fr));
  }
}
</style>
