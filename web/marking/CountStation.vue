<script setup lang="ts">
import type { CreatePieceEvent } from '@unto/contract';
import { computed, ref } from 'vue';
import SettingTiles from '../setting/SettingTiles.vue';
import StationBody from '../station/StationBody.vue';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';
import { formatTimeOfDay } from '../ui/format';
import CountRun from './CountRun.vue';
import PieceGrid, { type DrawnPiece } from './PieceGrid.vue';
import { useCounting } from './useCounting';

/** A run under way: the setting to be read from a metre, the pieces as they lie, and the press that counts them. */
const ticket = useTicket();
const shop = useShop();
const { marking, counted, sofar, nameOf, say } = useCounting();
const recipe = computed(() => ticket.page!.recipes.find(({ id }) => id === marking.value!.recipeId) ?? null);
const ratio = computed(() => ticket.ticket!.markWidthMm / ticket.ticket!.markHeightMm);
const wrong = ref<{ piece: number; spot: CreatePieceEvent['spot'] } | null>(null);

/** A piece that is pressed on its drawing: the place where it went wrong, or what was said of it is looked at again. */
function picked(piece: number, spot: { x: number; y: number } | null): void {
  const state = counted.value.find((one) => one.piece === piece)?.state ?? 'to go';
  if (wrong.value?.piece === piece || state !== 'set aside') wrong.value = { piece, spot };
  else void say(piece, 'taken back');
}
const drawn = computed<DrawnPiece[]>(() => {
  const said = new Map(counted.value.map((one) => [one.piece, one]));
  return Array.from({ length: marking.value!.pieces }, (_, i) => {
    const own = said.get(i + 1);
    const title = own && `${shop.personOf(own.by)}, ${formatTimeOfDay(own.at)}`;
    const base = { piece: i + 1, label: nameOf(i + 1).replace(/^Piece /, ''), title, spot: own?.spot };
    if (own?.state === 'done') return { ...base, look: 'good', word: 'done' };
    if (own?.state === 'set aside') return { ...base, look: 'bad', word: own.why ?? 'set aside' };
    return sofar.value!.next === i + 1 ? { ...base, look: 'now', word: 'now' } : { ...base, look: 'open', word: '' };
  });
});
const aside = computed(() => counted.value.filter(({ state }) => state === 'set aside'));
</script>

<template>
  <StationBody station="mark" cautions-last>
    <template #left>
      <SettingTiles v-if="recipe" large :setting="recipe" />
      <p class="quiet small">
        Begun {{ formatTimeOfDay(marking!.startedAt) }} by {{ shop.personOf(marking!.startedBy)
        }}<template v-if="marking!.checked.length"> with {{ marking!.checked.join(', ') }} looked at</template>; press a
        piece to say what went wrong with it, one set aside to take that back.
      </p>
      <PieceGrid :pieces="drawn" :ratio="ratio" @pick="picked" />
      <p v-for="one in aside" :key="one.piece" class="small">
        <strong class="aside">{{ nameOf(one.piece) }} is set aside:</strong> {{ one.why }}.
        <span class="quiet"
          >{{ shop.personOf(one.by) }}, {{ formatTimeOfDay(one.at) }} · it comes up again at Judge</span
        >
      </p>
    </template>
    <CountRun v-model:wrong="wrong" />
  </StationBody>
</template>

<style scoped>
.aside {
  color: var(--unto-danger);
}
</style>
