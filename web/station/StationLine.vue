<script setup lang="ts">
import type { Station, StationState } from '@unto/core';
import { nextTick, onMounted, useTemplateRef, watch } from 'vue';
import { RouterLink } from 'vue-router';

/** The eight stations of a ticket with their state by shape and word. Keys 1-8 go to them. */
const props = defineProps<{ ticketId: string; stations: readonly StationState[]; open: Station }>();

const STATE_WORDS = { open: 'open', running: 'running', done: 'done', attention: 'needs attention' } as const;

/** On a narrow screen the line scrolls: the open station is brought into sight. */
const line = useTemplateRef<HTMLElement>('line');
async function show(): Promise<void> {
  await nextTick();
  line.value?.querySelector('.here')?.scrollIntoView({ block: 'nearest', inline: 'center' });
}
onMounted(show);
watch(() => props.open, show);

function title(station: Station): string {
  return station.charAt(0).toUpperCase() + station.slice(1);
}
</script>

<template>
  <nav ref="line" class="line" aria-label="Stations">
    <RouterLink
      v-for="({ station, state, word }, i) in stations"
      :key="station"
      :to="`/tickets/${ticketId}/${station}`"
      class="station"
      :class="{ here: station === open }"
      :aria-current="station === open ? 'step' : undefined"
      :data-test-id="`station-${station}`"
    >
      <svg viewBox="0 0 16 16" width="16" height="16" aria-hidden="true" :class="state">
        <template v-if="state === 'done'">
          <rect x="1" y="1" width="14" height="14" rx="2" fill="currentColor" />
          <path d="M4 8.2 7 11l5-6" fill="none" stroke="var(--unto-surface)" stroke-width="2" />
        </template>
        <template v-else-if="state === 'running'">
          <circle cx="8" cy="8" r="6" fill="none" stroke="currentColor" stroke-width="3" stroke-dasharray="26 12" />
        </template>
        <template v-else-if="state === 'attention'">
          <path d="M8 1 15.5 15H.5Z" fill="currentColor" />
          <path d="M8 6v4.5M8 12v1.4" stroke="var(--unto-surface)" stroke-width="1.6" />
        </template>
        <rect
          v-else
          x="1.5"
          y="1.5"
          width="13"
          height="13"
          rx="2"
          fill="none"
          stroke="currentColor"
          stroke-width="1.5"
        />
      </svg>
      <span class="words">
        <strong>{{ title(station) }}</strong>
        <span class="quiet word">{{ word }}</span>
        <span class="visually-hidden">{{ STATE_WORDS[state] }}</span>
      </span>
      <span class="key" aria-hidden="true">{{ i + 1 }}</span>
    </RouterLink>
  </nav>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: repeat(8, minmax(0, 1fr));
  background: var(--unto-surface);
  border-bottom: 1px solid var(--unto-rule);
}

.station {
  position: relative;
  display: flex;
  gap: 0.5rem;
  align-items: flex-start;
  padding: 0.55rem 0.6rem 0.5rem;
  color: var(--unto-ink);
  text-decoration: none;
  border-right: 1px solid var(--unto-rule);
  border-bottom: 3px solid transparent;
  min-height: 56px;
}

.station.here {
  background: var(--unto-coat-tint);
  border-bottom-color: var(--unto-coat-line);
}

.words {
  display: flex;
  flex-direction: column;
  min-width: 0;
  line-height: 1.25;
}

.word {
  font-size: 0.8rem;
  overflow-wrap: anywhere;
}

.here .word {
  color: var(--unto-ink);
}

.key {
  position: absolute;
  right: 0.4rem;
  top: 0.2rem;
  font: 0.7rem var(--unto-mono);
  color: var(--unto-quiet);
}

svg {
  flex: none;
  margin-top: 0.15rem;
}

.done {
  color: var(--unto-bonded);
}

.running {
  color: var(--unto-coat-line);
}

.attention {
  color: var(--unto-danger);
}

.open {
  color: var(--unto-quiet);
}

@media (max-width: 1100px) {
  .station {
    padding: 0.5rem 0.4rem;
  }
}

@media (max-width: 700px) {
  .line {
    display: flex;
    overflow-x: auto;
    scrollbar-width: none;
  }

  .station {
    flex: 0 0 8rem;
  }
}

@media print {
  .station {
    gap: 0.25rem;
    padding: 0.3rem 0.2rem;
    font-size: 0.8rem;
  }

  .key {
    display: none;
  }
}
</style>
