<script setup lang="ts">
import type { FaultSubject } from '@unto/contract';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import PageHead from '../ui/PageHead.vue';
import { formatMoment } from '../ui/format';
import FaultLeft from './FaultLeft.vue';
import FaultRight from './FaultRight.vue';
import { useFault } from './useFault';

/** Find the fault of a coupon, a coat or a run, on a page of its own. */
const props = defineProps<{ kind: FaultSubject; id: string }>();
const search = useFault(() => ({ kind: props.kind, id: props.id }));
const { page, error } = search;
const about = computed(() =>
  page.value ? `${page.value.title} · ${page.value.about} · ${formatMoment(page.value.at)}` : '',
);
const back = computed(() => {
  if (props.kind === 'coupon') return { to: `/coupons/${props.id}`, words: 'The coupon' };
  if (props.kind === 'run') return { to: `/ledger/${props.id}`, words: 'The run' };
  return { to: `/tickets/${page.value?.ticketId ?? ''}/coat`, words: 'The coat' };
});
</script>

<template>
  <PageHead title="Find the fault" :about="about"
    ><RouterLink :to="back.to">{{ back.words }}</RouterLink></PageHead
  >
  <p v-if="error" class="missing fault" role="alert">{{ error.message }}</p>
  <div v-else class="halves">
    <div class="left"><FaultLeft :search="search" /></div>
    <div class="right"><FaultRight :search="search" /></div>
  </div>
</template>

<style scoped>
.missing {
  padding: 2rem;
}

.halves {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(400px, 452px);
  min-height: 0;
}

.left,
.right {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
  padding: 0.9rem 1.4rem 1rem 1.5rem;
  overflow-y: auto;
}

.right {
  background: var(--unto-surface);
  border-left: 1px solid var(--unto-rule);
}

@media (max-width: 900px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }

  .left,
  .right {
    overflow-y: visible;
    padding: 0.8rem 0.9rem;
  }

  .right {
    border-left: 0;
    border-top: 1px solid var(--unto-rule);
  }
}
</style>
