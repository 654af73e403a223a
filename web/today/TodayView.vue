<script setup lang="ts">
import { useQuery } from '@pinia/colada';
import { useIntervalFn } from '@vueuse/core';
import Button from 'primevue/button';
import { computed } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useShop } from '../stores/shop';
import { useNow } from '../stores/now';
import RunningTimers from '../timers/RunningTimers.vue';
import DueIn from '../timers/DueIn.vue';
import PageHead from '../ui/PageHead.vue';
import { useUnits } from '../ui/useUnits';
import { LOCALE } from '../ui/format';

/** What to do next in time order; timers; what runs short. */
const { data, refresh } = useQuery({ key: KEYS.today(), query: () => api.call('today', {}) });
const today = computed(() => data.value ?? null);
useIntervalFn(() => void refresh(), 20_000);
const time = useNow();
const shop = useShop();
const router = useRouter();

const units = useUnits();
const spanOf = ({ low, high }: { low: number; high: number }) => units.span('mass', low, high);
const heading = computed(() => {
  const now = new Date(time.now);
  const day = now.toLocaleDateString(LOCALE, { weekday: 'long' });
  return `${day}, ${now.toLocaleTimeString(LOCALE, { hour: '2-digit', minute: '2-digit', hour12: false })}`;
});
const first = computed(() => today.value?.tasks[0]);
const rest = computed(() => today.value?.tasks.slice(1) ?? []);
</script>

<template>
  <PageHead :title="heading" :about="shop.workshop?.name" />
  <div v-if="today" class="today">
    <section class="next" aria-labelledby="next-title">
      <h2 id="next-title">Next, in order</h2>
      <p v-if="!first" class="nothing">
        Nothing waits. <RouterLink to="/tickets/new">Open a ticket</RouterLink> to begin.
      </p>
      <article v-if="first" class="task first" data-test-id="task-first">
        <DueIn :at="first.at" :urgent="first.urgent" />
        <div class="what">
          <h3>{{ first.title }}</h3>
          <p class="quiet small">{{ first.text }}</p>
        </div>
        <Button :label="first.action" @click="router.push(first.to)" />
      </article>
      <article v-for="task in rest" :key="task.key" class="task">
        <DueIn :at="task.at" :urgent="task.urgent" />
        <div class="what">
          <h3>{{ task.title }}</h3>
          <p class="quiet small">{{ task.text }}</p>
        </div>
        <Button outlined :label="task.action" @click="router.push(task.to)" />
      </article>
    </section>
    <aside class="side">
      <RunningTimers />
      <section v-if="today.tellsMost" data-test-id="tells-most">
        <h2>One measurement would tell most</h2>
        <p>{{ today.tellsMost.words }}</p>
        <p class="quiet small">
          {{ today.tellsMost.of }}: {{ spanOf(today.tellsMost.now) }} now, {{ spanOf(today.tellsMost.then) }} then.
          <RouterLink :to="today.tellsMost.to">Go there</RouterLink>
        </p>
      </section>
      <section>
        <h2>Will run short</h2>
        <p v-if="!today.short.length" class="quiet">Nothing that was weighed runs short.</p>
        <p v-for="entry in today.short" :key="entry.key" class="short">
          <RouterLink :to="entry.to">{{ entry.what }}</RouterLink><span class="quiet small">{{ entry.left }}</span>
        </p>
      </section>
    </aside>
  </div>
</template>

<style scoped>
.today {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(300px, 420px);
}

.next {
  padding: 0.9rem 1.2rem 1.5rem 1.5rem;
}

.task {
  display: grid;
  grid-template-columns: 6rem minmax(0, 1fr) auto;
  align-items: center;
  gap: 0.6rem;
  padding: 0.8rem 0.3rem;
  border-bottom: 1px solid var(--unto-rule);
}

.task.first {
  margin: 0.6rem 0 0.2rem;
  padding: 1.1rem 1rem;
  background: var(--unto-surface);
  border: 1px solid var(--unto-rule);
  border-left: 5px solid var(--unto-action);
  border-radius: 3px;
}

.side {
  background: var(--unto-surface);
  border-left: 1px solid var(--unto-rule);
  padding: 0.9rem 1.5rem;
  display: flex;
  flex-direction: column;
  gap: 1.6rem;
}

.short a {
  color: var(--unto-ink);
}

.short {
  display: flex;
  justify-content: space-between;
  gap: 1rem;
  padding: 0.6rem 0;
  border-bottom: 1px solid var(--unto-rule);
}

.nothing {
  padding: 1.5rem 0;
}

@media (max-width: 900px) {
  .today {
    grid-template-columns: minmax(0, 1fr);
  }

  .side {
    border-left: 0;
    border-top: 1px solid var(--unto-rule);
  }
}

@media (max-width: 560px) {
  .task {
    grid-template-columns: minmax(0, 1fr) auto;
  }

  .task > :first-child {
    grid-column: 1 / -1;
  }
}
</style>
