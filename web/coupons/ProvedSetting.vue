<script setup lang="ts">
import type { CreateRecipe } from '@unto/contract';
import { pairingOf, settingIn, sweptMark } from '@unto/domain';
import { v4 as uuid } from 'uuid';
import { computed, watch } from 'vue';
import GradeMark from '../evidence/GradeMark.vue';
import ProvedBefore from '../recipes/ProvedBefore.vue';
import SettingLine from '../setting/SettingLine.vue';
import { useAct } from '../stores/useAct';
import { useTicket } from '../stores/ticket';
import { formatDuration } from '../ui/format';
import { FIT_SEED, useWindow } from '../window/useWindow';

/** The setting that earlier coupons of this pairing prove for this job: taken without another coupon. */
const ticket = useTicket();
const { act, busy } = useAct();
const { family, coupons, drawn, fit } = useWindow(() => pairingOf(ticket.ticket!));
watch([family, () => ticket.fitted], ([now, fitted]) => now && fitted && fit(sweptMark(ticket.ticket!), fitted, null), {
  immediate: true,
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
  <ProvedBefore
    v-if="offer && setting"
    take="Take the proved setting"
    :busy="busy"
    test-id="take-proved"
    data-test-id="proved-setting"
    @take="take"
  >
    <p>
      <strong>Proved before</strong> on {{ coupons.length === 1 ? 'a coupon' : `${coupons.length} coupons` }} of this
      pairing: <SettingLine :setting="setting" />, {{ formatDuration(offer.seconds) }} a piece, at worst
      {{ Math.floor(offer.worst * 100) }} of 100 hold <GradeMark :grade="offer.proof.grade" />
    </p>
  </ProvedBefore>
</template>
