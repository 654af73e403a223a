<script setup lang="ts">
import type { CreateRecipe } from '@unto/contract';
import { pairingOf, settingIn } from '@unto/domain';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, watch } from 'vue';
import { RouterLink } from 'vue-router';
import GradeMark from '../evidence/GradeMark.vue';
import SettingLine from '../setting/SettingLine.vue';
import { useAct } from '../stores/useAct';
import { useTicket } from '../stores/ticket';
import { formatDuration } from '../ui/format';
import { windowAddress } from '../window/address';
import { FIT_SEED, mapRestOf, useWindow } from '../window/useWindow';

/** The setting that earlier coupons of this pairing prove for this job: taken without another coupon. */
const ticket = useTicket();
const { act, busy } = useAct();
const { family, coupons, drawn, fit } = useWindow(() => pairingOf(ticket.ticket!));
watch(
  [family, () => ticket.fitted],
  ([now, fitted]) => now && fitted && fit(markOf(ticket.ticket!), fitted, mapRestOf(now.cells[0]!)),
  { immediate: true },
);
const markOf = ({ markWidthMm, markHeightMm }: { markWidthMm: number; markHeightMm: number }) => ({
  widthMm: markWidthMm,
  heightMm: markHeightMm,
});
const offer = computed(() => {
  const quickest = drawn.value?.answer.quickest;
  return quickest?.proof.grade.startsWith('proved') ? quickest : null;
});
const setting = computed(() => (offer.value && family.value ? settingIn(family.value, offer.value) : null));

async function take(): Promise<void> {
  const { powerW: _powerW, ...rest } = setting.value!;
  const body: CreateRecipe = {
    id: uuid(),
    ticketId: ticket.ticket!.id,
    kind: 'quickest',
    couponIds: coupons.value.map(({ id }) => id),
    ...rest,
    seed: FIT_SEED,
  };
  await act('createRecipe', { body }, 'the proved setting');
}
</script>

<template>
  <section v-if="offer && setting" class="proved" data-test-id="proved-setting">
    <p>
      <strong>Proved before</strong> on {{ coupons.length === 1 ? 'a coupon' : `${coupons.length} coupons` }} of this
      pairing: <SettingLine :setting="setting" />, {{ formatDuration(offer.seconds) }} a piece, at worst
      {{ Math.floor(offer.worst * 100) }} of 100 hold <GradeMark :grade="offer.proof.grade" />
    </p>
    <p class="row">
      <Button label="Take the proved setting" :loading="busy" data-test-id="take-proved" @click="take" />
      <RouterLink :to="windowAddress(ticket.ticket!, ticket.ticket!.id)">Look at its window</RouterLink>
    </p>
  </section>
</template>

<style scoped>
.proved {
  padding: 0.7rem 0.9rem;
  border: 1px solid var(--unto-rule);
  border-left: 4px solid var(--unto-bonded);
}

.row {
  display: flex;
  align-items: center;
  gap: 1rem;
  margin-bottom: 0;
}
</style>
