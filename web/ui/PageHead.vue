<script setup lang="ts">
import { useShop } from '../stores/shop';
import { useOperatorPicker } from '../stores/operator-picker';

/** Head of every page: title, what it is about, and who is at the bench. */
defineProps<{ title: string; about?: string }>();
const shop = useShop();
const picker = useOperatorPicker();
</script>

<template>
  <header class="head">
    <h1>{{ title }}</h1>
    <p v-if="about" class="quiet about">{{ about }}</p>
    <div class="side">
      <slot />
      <button type="button" class="operator no-print" data-test-id="operator" @click="picker.open = true">
        <template v-if="shop.operator"
          ><strong>{{ shop.operator.name.split(' ')[0] }}</strong> <span class="quiet">at the bench</span></template
        >
        <strong v-else class="fault">Who is at the bench?</strong>
      </button>
    </div>
  </header>
</template>

<style scoped>
/* A long page below takes none of its height. */
.head {
  flex: none;
  display: flex;
  align-items: baseline;
  gap: 0.2rem 1rem;
  padding: 0.75rem 1.5rem 0.6rem;
  border-bottom: 1px solid var(--unto-rule);
  min-height: 57px;
}

/* In one line where there is room for it. */
h1 {
  min-width: 0;
  text-wrap: pretty;
}

.about {
  flex: 1 1 0;
  min-width: 10rem;
  font-size: 0.92rem;
  line-height: 1.25;
}

.side {
  flex: none;
  margin-left: auto;
  display: flex;
  align-items: baseline;
  gap: 1rem;
  white-space: nowrap;
}

.operator {
  border: 0;
  background: none;
  color: var(--unto-ink);
  cursor: pointer;
  min-height: 44px;
  padding: 0.4rem 0.2rem;
  border-bottom: 1px dotted var(--unto-quiet);
}

@media (max-width: 1100px) {
  .side {
    flex-wrap: wrap;
    justify-content: end;
    max-width: 45%;
    gap: 0 1rem;
  }
}

@media (max-width: 900px) {
  .side {
    max-width: none;
  }

  .head {
    flex-wrap: wrap;
  }
}

@media (max-width: 700px) {
  .side {
    flex-wrap: wrap;
    min-width: 0;
    max-width: 100%;
    gap: 0.2rem 0.5rem;
  }

  .side :deep(.p-button.p-button-text.p-button-sm) {
    padding-inline: 0.1rem;
  }

  .operator .quiet {
    display: none;
  }

  .head {
    padding: 0.6rem 0.9rem;
  }
}
</style>
