<script setup lang="ts">
import { cautionsFor, type Station } from '@unto/core';
import { holdsUnder } from '@unto/domain';
import Button from 'primevue/button';
import { computed } from 'vue';
import { v4 as uuid } from 'uuid';
import { useAct } from '../stores/useAct';
import { useTicket } from '../stores/ticket';

/** Cautions of a station that nobody has acknowledged on this ticket yet, one at a time; the rest in a line to look up. */
const props = defineProps<{ station: Station }>();
const ticket = useTicket();
const { act } = useAct();

const all = computed(() => {
  const { page, fitted, compound } = ticket;
  if (!page || !fitted) return [];
  return cautionsFor(props.station, {
    family: fitted.substrate.family,
    layer: fitted.substrate.layer,
    form: compound?.body.form ?? null,
    handling: compound?.body.handling ?? null,
    beam: fitted.head.wavelengthClass,
    headName: fitted.head.name,
    eyewear: fitted.head.eyewear,
    solventBased: compound?.body.solventBased ?? false,
    foodUse: page.ticket.foodUse,
    thinner: compound?.body.thinnerRatio ? compound.body.thinner : '',
    cleaning: compound?.body.cleaning ?? '',
    round: fitted.substrate.diameterMm !== null || page.placeReadings.some(({ kind }) => kind === 'round'),
  });
});
const known = computed(
  () =>
    new Set(
      ticket.page?.checks
        .filter((check) => check.kind === 'caution' && holdsUnder(check, ticket.page!.fitting))
        .map(({ code }) => code),
    ),
);
/** What the compound's record says of its hazards, where it is handled. */
const hazards = computed(() =>
  ['coat', 'mark', 'clean'].includes(props.station) ? (ticket.compound?.body.hazards ?? '') : '',
);
const open = computed(() => all.value.filter(({ code }) => !known.value.has(code)));

async function understood(code: string): Promise<void> {
  const id = ticket.ticket!.id;
  const body = { id: uuid(), station: props.station, kind: 'caution' as const, code };
  await act('createCheck', { params: { id }, body }, 'Caution understood');
}
</script>

<template>
  <section v-if="all.length" class="cautions" aria-label="Cautions">
    <p v-if="hazards" class="small" data-test-id="hazards">
      <strong>{{ ticket.compound!.body.name }}:</strong> {{ hazards }}
      <a
        v-if="ticket.compound!.body.dataSheet"
        :href="`/api/files/${ticket.compound!.body.dataSheet.hash}`"
        target="_blank"
        >Open its data sheet</a
      >
    </p>
    <div v-if="open[0]" class="caution" data-test-id="caution">
      <p>
        <strong>{{ open[0].title }}</strong> {{ open[0].text }}
      </p>
      <Button
        severity="danger"
        outlined
        size="small"
        label="Understood"
        data-test-id="understood"
        @click="understood(open[0].code)"
      />
    </div>
    <p v-if="open.length > 1" class="quiet small">{{ open.length - 1 }} more after this one.</p>
    <details v-if="!open.length" class="quiet small">
      <summary>{{ all.length }} caution{{ all.length > 1 ? 's' : '' }} understood here</summary>
      <p v-for="caution in all" :key="caution.code">
        <strong>{{ caution.title }}</strong> {{ caution.text }}
      </p>
    </details>
  </section>
</template>

<style scoped>
.cautions {
  display: flex;
  flex-direction: column;
  gap: 0.3rem;
}

.caution {
  display: flex;
  align-items: center;
  gap: 0.75rem;
  padding: 0.6rem 0.75rem;
  background: var(--unto-danger-tint);
  border-left: 4px solid var(--unto-danger);
  font-size: 0.88rem;
}

.caution p {
  flex: 1;
}

.caution :deep(.p-button) {
  color: var(--unto-danger);
  border-color: var(--unto-danger);
}
</style>
