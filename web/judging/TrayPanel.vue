<script setup lang="ts">
import type { TrayPieceRead } from '@unto/contract';
import Button from 'primevue/button';
import { computed } from 'vue';
import GradeMark from '../evidence/GradeMark.vue';
import BringPicture from '../pictures/BringPicture.vue';
import TextField from '../ui/TextField.vue';
import { formatMoment, formatNumber } from '../ui/format';
import type { useTray } from './useTray';

/** The pieces of a run read from one picture: which lie there, what it tells of them, and what of that somebody takes as a fault. */
const props = defineProps<{ tray: ReturnType<typeof useTray>; known: boolean }>();
type Finding = TrayPieceRead['findings'][number];
/** Without a piece: of most of them. */
const emit = defineEmits<{ fault: [piece: TrayPieceRead | null, finding: Finding] }>();
const { newest, lying, doing, fault, stop, bring, take, nameOf, isTaken } = props.tray;
const read = computed(() => newest.value?.pieces.filter(({ contrast }) => contrast !== null) ?? []);
/** What more than half of them show is told once. */
const common = computed(() => {
  const all = read.value.flatMap(({ findings }) => findings);
  const kinds = [...new Set(all.map(({ kind }) => kind))];
  return kinds.flatMap((kind) => {
    const of = all.filter((one) => one.kind === kind);
    return of.length > read.value.length / 2 && read.value.length > 2 ? [{ ...of[0]!, count: of.length }] : [];
  });
});
const found = computed(() =>
  (newest.value?.pieces ?? []).flatMap((piece) => {
    const findings = piece.findings.filter(({ kind }) => !common.value.some((one) => one.kind === kind));
    return findings.length ? [{ piece, findings }] : [];
  }),
);
const unread = computed(() => newest.value?.pieces.filter(({ unreadable }) => unreadable) ?? []);
const l = (value: number) => formatNumber(Math.abs(value), 0);
const range = computed(() => {
  const all = read.value.map(({ contrast }) => Math.abs(contrast!));
  return all.length ? `${l(Math.min(...all))} to ${l(Math.max(...all))} L*` : '';
});
</script>

<template>
  <section class="tray" data-test-id="tray">
    <h3>Read them from one picture</h3>
    <p v-if="!known" class="quiet small">
      Nothing was laid out on these pieces, so that a picture has nothing to be read against: bring the artwork at
      Place.
    </p>
    <template v-else>
      <p class="quiet small">
        Lay them apart on something plain beside the reference card, row by row from the upper left in this order, and
        photograph them from straight above in even light.
      </p>
      <TextField v-model="lying" label="Pieces that lie there" test-id="tray-pieces" />
      <BringPicture :doing="doing" :again="newest !== null" @brought="bring" @take="take" @stop="stop" />
      <p v-if="fault" class="fault" role="alert" data-test-id="tray-fault">{{ fault }}</p>
      <template v-if="newest">
        <p data-test-id="tray-says">
          <strong>{{ read.length }} of {{ newest.pieces.length }} read{{ range ? `: contrast ${range}` : '' }}.</strong>
          <template v-if="newest.expected">
            Its window lets expect {{ l(newest.expected.mean) }} ({{ l(newest.expected.low) }} to
            {{ l(newest.expected.high) }}, nine of ten, from {{ newest.expected.cells }} cells).</template
          >
          <template v-else>
            No window tells what to expect: they are held against each other, so that a fault of all of them is not
            seen.</template
          >
          {{ ' ' }}<GradeMark grade="measured" /> {{ ' '
          }}<span class="quiet small">{{ formatMoment(newest.at) }}</span>
        </p>
        <ul class="found">
          <li v-for="one in common" :key="one.kind" :data-test-id="`found-most-${one.kind}`">
            <span
              ><strong>{{ one.count }} of {{ read.length }}: {{ one.kind }}?</strong> {{ one.words }}</span
            >
            <Button outlined size="small" label="It is so" @click="emit('fault', null, one)" />
          </li>
          <template v-for="{ piece, findings } in found" :key="piece.piece">
            <li v-for="finding in findings" :key="finding.kind" :data-test-id="`found-${piece.piece}`">
              <span
                ><strong>{{ nameOf(piece.piece) }}: {{ finding.kind }}?</strong> {{ finding.words }}</span
              >
              <span v-if="isTaken(piece, finding.kind)" class="quiet">taken</span>
              <Button
                v-else
                outlined
                size="small"
                label="It is so"
                :data-test-id="`take-${piece.piece}`"
                @click="emit('fault', piece, finding)"
              />
            </li>
          </template>
          <li v-for="piece in unread" :key="piece.piece">
            <span
              ><strong>{{ nameOf(piece.piece) }} is not read:</strong>
              {{
                piece.unreadable === 'glare'
                  ? 'a reflection lies on it. Turn it or the lamp'
                  : 'no bare ground shows beside its mark'
              }}</span
            >
          </li>
        </ul>
        <p v-if="!found.length && !common.length && !unread.length" class="quiet small">
          Nothing of them stands out. What the pad does to them no picture tells.
        </p>
      </template>
    </template>
  </section>
</template>

<style scoped>
.tray {
  display: grid;
  gap: 0.4rem;
  padding-top: 0.5rem;
  border-top: 1px solid var(--unto-rule);
}

.tray p,
.tray h3 {
  margin: 0;
}

.found {
  margin: 0;
  padding: 0;
  list-style: none;
}

.found li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.6rem;
  padding: 0.3rem 0.6rem;
  border-left: 4px solid var(--unto-danger);
}
</style>
