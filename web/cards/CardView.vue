<script setup lang="ts">
import {
  CARD_SIZES,
  contrastRanges,
  GREY_STEPS,
  lightness,
  reflectanceAt,
  TYPICAL_PRINT,
  type CardPrint,
  type CardSize,
} from '@unto/core';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref, shallowRef } from 'vue';
import { ApiProblem } from '../api/client';
import BringPicture from '../pictures/BringPicture.vue';
import { keepPictureFile } from '../pictures/kept-picture';
import { checkPictureFile } from '../pictures/picture-file';
import { useReading } from '../pictures/useReading';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { useShop } from '../stores/shop';
import { choicesOf } from '../ui/choices';
import { formatDay } from '../ui/format';
import NumberField from '../ui/NumberField.vue';
import PageHead from '../ui/PageHead.vue';
import PickOne from '../ui/PickOne.vue';
import { valueOf } from '../workers/computations';
import { useComputations } from '../workers/useComputations';
import { useCardPrints } from './useCardPrints';

/** What the print of a reference card throws back: as usual, read from a photograph beside a known white, or measured by a meter. */
const shop = useShop();
const outbox = useOutbox();
const notices = useNotices();
const worker = useComputations();
const { cards } = useCardPrints();
const size = ref<CardSize>('A5');
const card = computed(() => cards.value.find((one) => one.size === size.value) ?? null);
const inForce = computed<CardPrint>(() => card.value?.print ?? TYPICAL_PRINT);
const toL = ({ paper, steps }: CardPrint) => [paper, ...steps].map(lightness);
const FIELDS = ['Paper', ...GREY_STEPS.map((_, i) => `Step ${i + 1}`)];
const BASES = {
  typical: 'Typical print assumed',
  photographed: 'Photographed beside a known white',
  measured: 'Measured with a meter',
} as const;
/** How far a strong mark on a light ground may be off by what is not known of the card, ± L*. */
const mayBeOff = computed(() => {
  const { low, high } = contrastRanges(inForce.value)(72, 32);
  return Math.max(high - 40, 40 - low);
});

const whiteL = ref<number | null>(null);
const { doing, fault, run, stop } = useReading(worker.stop);
/** What was read from a photograph and is not kept yet. */
const found = shallowRef<{ size: CardSize; print: CardPrint; fileHash: string } | null>(null);
const whiteFault = ref('');

async function bring(file: File): Promise<void> {
  whiteFault.value = whiteL.value === null || Number.isNaN(whiteL.value) ? 'Say how light the white sheet is.' : '';
  if (whiteFault.value) return;
  found.value = null;
  await run(async (step) => {
    const kept = await keepPictureFile(file);
    step('read');
    await checkPictureFile(kept.mediaType, file);
    const read = valueOf(await worker.core.characteriseCard({ picture: file, white: reflectanceAt(whiteL.value!) }));
    found.value = { size: read.size, print: read.print, fileHash: kept.hash };
    size.value = read.size;
  });
}

/** Lightness as a meter shows it, paper first; null where nothing was typed yet. */
const typed = ref<(number | null)[]>(FIELDS.map(() => null));
const typedFaults = ref<Record<string, string>>({});
const pathOf = (i: number) => (i === 0 ? 'print.paper' : `print.steps.${i - 1}`);

async function keepTyped(): Promise<void> {
  typedFaults.value = Object.fromEntries(
    typed.value.flatMap((l, i) => (l === null || Number.isNaN(l) ? [[pathOf(i), 'Measure it and type L*.']] : [])),
  );
  if (Object.keys(typedFaults.value).length) return;
  const [paper, ...steps] = typed.value.map((l) => reflectanceAt(l!));
  if (await keep({ size: size.value, print: { basis: 'measured', paper: paper!, steps }, fileHash: null }))
    typed.value = FIELDS.map(() => null);
}

async function keepFound(): Promise<void> {
  if (await keep(found.value!)) found.value = null;
}

async function keep(one: { size: CardSize; print: CardPrint; fileHash: string | null }): Promise<boolean> {
  const white = one.fileHash ? reflectanceAt(whiteL.value!) : null;
  const body = { id: uuid(), ...one, print: { ...one.print, steps: [...one.print.steps] }, white };
  try {
    await outbox.send('createCard', { body }, `the ${one.size} card`);
    notices.say(
      `The ${one.size} card is kept. Pictures are read by it from now on; those kept stay as they were read.`,
    );
    return true;
  } catch (problem) {
    if (!(problem instanceof ApiProblem)) throw problem;
    typedFaults.value = Object.fromEntries((problem.problem.faults ?? []).map(({ path, message }) => [path, message]));
    fault.value = problem.problem.detail;
    return false;
  }
}
const shownL = computed(() => toL(found.value?.print ?? inForce.value));
const usualL = toL(TYPICAL_PRINT);
const swatch = (l: number) => ({ background: `lab(${l} 0 0)` });
</script>

<template>
  <PageHead title="Reference card" about="Light and tone of every picture are levelled by it" />
  <div class="page">
    <section>
      <div class="bar">
        <PickOne v-model="size" bare label="Card" :options="choicesOf(CARD_SIZES)" test-id="card-size" />
        <a :href="`/api/card.pdf?size=${size}`" target="_blank">Print it, 100 %</a>
      </div>
      <p class="basis" data-test-id="card-basis">
        <strong>{{ found ? 'Read from the photograph, not kept yet' : BASES[inForce.basis] }}</strong>
        <span v-if="card && !found" class="quiet small"> · {{ formatDay(card.at) }}, {{ shop.personOf(card.by) }}</span>
      </p>
      <p class="quiet small">
        A contrast of 40 L* may be off by {{ mayBeOff.toFixed(1) }} L*. Where that decides whether a cell holds, the
        picture proposes, and an eye must tell: such a cell counts as judged by eye.
      </p>
      <table class="plain">
        <thead>
          <tr>
            <th></th>
            <th></th>
            <th class="number">usual, L*</th>
            <th class="number">this card, L*</th>
            <th class="number">light back, %</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(name, i) in FIELDS" :key="name">
            <td><span class="swatch" :style="swatch(shownL[i]!)" /></td>
            <td class="name">{{ name }}</td>
            <td class="number mono">{{ usualL[i]!.toFixed(1) }}</td>
            <td class="number mono" :data-test-id="`card-l-${i}`">{{ shownL[i]!.toFixed(1) }}</td>
            <td class="number mono">{{ (100 * reflectanceAt(shownL[i]!)).toFixed(1) }}</td>
          </tr>
        </tbody>
      </table>
    </section>
    <section class="ways">
      <form class="paper-form" novalidate @submit.prevent>
        <fieldset>
          <legend>From a photograph</legend>
          <p class="full small">
            Lay a sheet of known white flat over the middle of the card’s window, in even light, and photograph both
            from straight above. The camera’s own tone is taken as the standard has it: a meter knows more.
          </p>
          <NumberField
            v-model="whiteL"
            class="wide"
            label="White sheet"
            must
            unit="L*"
            hint="On its data sheet; a white tile has 95 to 98"
            :fault="whiteFault"
            test-id="card-white"
          />
          <div class="full">
            <BringPicture :doing="doing" :again="found !== null" no-camera @brought="bring" @stop="stop" />
          </div>
          <p v-if="fault" class="full fault" role="alert" data-test-id="card-fault">{{ fault }}</p>
          <div v-if="found" class="full">
            <Button label="Keep what was read" data-test-id="keep-card" @click="keepFound" />
          </div>
        </fieldset>
      </form>
      <form class="paper-form" novalidate @submit.prevent="keepTyped">
        <fieldset>
          <legend>From a meter</legend>
          <NumberField
            v-for="(name, i) in FIELDS"
            :key="name"
            v-model="typed[i]"
            :label="name"
            must
            unit="L*"
            :fault="typedFaults[pathOf(i)]"
            :test-id="`card-typed-${i}`"
          />
          <div class="full">
            <Button type="submit" outlined label="Keep what was measured" data-test-id="keep-typed-card" />
          </div>
        </fieldset>
      </form>
    </section>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  gap: 1.4rem;
  align-items: start;
  padding: 0.8rem 1.5rem 1.5rem;
}

@media (max-width: 1000px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
  }
}

.bar {
  display: flex;
  align-items: center;
  gap: 1rem;
}

.basis {
  font-size: 1.15rem;
  margin: 0.8rem 0 0.3rem;
}

.name {
  white-space: nowrap;
}

.swatch {
  display: block;
  width: 2.6rem;
  height: 1.5rem;
  border: 1px solid var(--unto-rule);
}

.ways {
  display: grid;
  gap: 1rem;
}

.ways .paper-form {
  padding: 0;
}
</style>
