<script setup lang="ts">
import { MEASURES, SURE, type Measure, type Point2 } from '@unto/core';
import type { WindowFamily } from '@unto/domain';
import Button from 'primevue/button';
import Slider from 'primevue/slider';
import { computed, onMounted, ref, shallowRef, useTemplateRef } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import GradeMark from '../evidence/GradeMark.vue';
import BringPicture from '../pictures/BringPicture.vue';
import { useAct } from '../stores/useAct';
import { useShop } from '../stores/shop';
import { formatDuration } from '../ui/format';
import PageHead from '../ui/PageHead.vue';
import PictureHandle from '../ui/PictureHandle.vue';
import { useHandles } from '../ui/useHandles';
import { usePanel } from '../ui/useUnits';
import type { MatchedSetting } from '../workers/computations';
import { pairingIn, windowAddress, type WindowParams } from './address';
import { familyWords } from './family-words';
import { MAP_WORDS } from './map-shown';
import { recipeBody } from './recipe-body';
import { useBench } from './useBench';
import { useMatch } from './useMatch';
import { useWindow, windowTask } from './useWindow';

/** A photograph of an older piece: which setting of this window makes marks that look most like it, and what likely remains between. */
const props = defineProps<WindowParams>();
const route = useRoute();
const router = useRouter();
const shop = useShop();
const { act } = useAct();
const pairing = () => pairingIn(props);
const ticketId = () => (typeof route.query['ticket'] === 'string' ? route.query['ticket'] : null);
const bench = useBench(pairing, ticketId);
const { ticket, fitted, compound, mark } = bench;
const units = usePanel(() => fitted.value);
const { families, window, refresh } = useWindow(pairing);
onMounted(async () => {
  await bench.open();
  await refresh();
});
const { doing, fault, stop, url, size, spots, piece, matched, bring, read } = useMatch(() =>
  families.value.map((family) =>
    windowTask(family, fitted.value!, { mark: mark.value, shop: shop.workshop!, window: window.value! }),
  ),
);

type Spot = 'mark' | 'bare';
const stage = useTemplateRef<SVGSVGElement>('stage');
const { dragged, stepped, grab } = useHandles<Spot>(
  stage,
  (spot) => spots.value![spot],
  () => size.value!,
  (spot, to) => (spots.value = { ...spots.value!, [spot]: to }),
);
const NAMES: Record<Spot, string> = { mark: 'on the mark', bare: 'on bare ground' };
/** The whole picture, or a third of it about the two marks. */
const near = ref(false);
const view = computed(() => {
  const { width, height } = size.value!;
  if (!near.value) return { x: 0, y: 0, width, height };
  const about = (side: 'x' | 'y', whole: number) =>
    Math.min((whole * 2) / 3, Math.max(0, (held.value.mark[side] + held.value.bare[side]) / 2 - whole / 6));
  return { x: about('x', width), y: about('y', height), width: width / 3, height: height / 3 };
});
/** Where the marks were when it was last looked at nearer: it stands still while they are moved. */
const held = shallowRef<Record<Spot, Point2>>({ mark: { x: 0, y: 0 }, bare: { x: 0, y: 0 } });
function look(nearer: boolean): void {
  const { mark: on, bare } = spots.value!;
  held.value = { mark: { ...on }, bare: { ...bare } };
  near.value = nearer;
}
const scale = computed(() => (size.value ? view.value.width / 760 : 1));

/** Only contrast may lie below nothing. */
function digits(measure: Measure, value: number): string {
  const read = measure === 'contrast' ? value : Math.max(0, value);
  return measure === 'edgeUm' ? String(Math.round(read)) : read.toFixed(1);
}
interface Found {
  readonly title: string;
  readonly family: WindowFamily;
  readonly match: MatchedSetting;
}
/** Nearest first; where the nearest is not proven, the nearest that is beside it. */
const found = computed<Found[]>(() => {
  const all = (matched.value ?? []).flatMap(({ nearest, proven }, i) => {
    const family = families.value[i]!;
    return [
      ...(proven ? [{ title: 'Nearest that is proven', family, match: proven }] : []),
      ...(nearest && nearest.choice.sure < SURE
        ? [{ title: 'Nearest of all that was tried', family, match: nearest }]
        : []),
    ];
  });
  return all.sort((a, b) => a.match.remaining.middle - b.match.remaining.middle);
});

async function accept({ family, match }: Found): Promise<void> {
  const body = recipeBody({
    ...{ pairing: pairing(), ticket: ticket.value, mark: mark.value, family },
    ...{ choice: match.choice, kind: 'match' as const },
  });
  const answer = await act('createRecipe', { body }, 'a recipe');
  if (answer) await router.push(ticket.value ? `/tickets/${ticket.value.id}/mark` : `/recipes/${answer.id}`);
}
</script>

<template>
  <template v-if="fitted">
    <PageHead
      title="Match a piece"
      :about="`${compound?.body.name ?? 'No compound'} on ${fitted.substrate.name}, ${fitted.head.name}, ${fitted.lens.name}`"
      ><RouterLink :to="windowAddress(pairing(), ticketId())">The window</RouterLink></PageHead
    >
    <div class="match">
      <section class="piece">
        <p v-if="!size">
          Lay the older piece on the reference card, photograph both from above, and bring the picture. It is read here
          and not kept.
        </p>
        <BringPicture :doing="doing" :first="!size" :again="size !== null" no-camera @brought="bring" @stop="stop" />
        <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
        <template v-if="size && spots">
          <p>
            Put one mark where the piece is all mark, the other on bare ground near it.
            <strong v-if="!piece">Then read it.</strong>
          </p>
          <svg
            ref="stage"
            :viewBox="`${view.x} ${view.y} ${view.width} ${view.height}`"
            role="group"
            aria-label="Photograph of the piece with two marks"
          >
            <image :href="url" :width="size.width" :height="size.height" />
            <PictureHandle
              v-for="spot in ['mark', 'bare'] as const"
              :key="spot"
              :x="spots[spot].x"
              :y="spots[spot].y"
              :scale="scale"
              :name="NAMES[spot]"
              :caption="NAMES[spot]"
              :test-id="`spot-${spot}`"
              @pointerdown="grab"
              @pointermove="dragged(spot, $event)"
              @keydown="stepped(spot, $event)"
            />
          </svg>
          <div class="line">
            <label class="spot">
              <span
                >what is read of each: <span class="mono">{{ spots.sizeMm.toFixed(1) }} mm</span> square</span
              >
              <Slider v-model="spots.sizeMm" :min="0.4" :max="5" :step="0.2" aria-label="side of the square, mm" />
            </label>
            <Button
              outlined
              :label="near ? 'Whole picture' : 'Look nearer'"
              data-test-id="look-nearer"
              @click="look(!near)"
            />
            <Button
              :label="piece ? 'Read it again' : 'Read and match'"
              :disabled="doing !== null"
              data-test-id="read-piece"
              @click="read"
            />
          </div>
        </template>
      </section>
      <aside>
        <h2>What comes nearest</h2>
        <p v-if="!piece" class="quiet">
          Contrast, tint, grain and edge of the piece are held against what pictures of this window's coupons tell of
          every setting that was tried.
        </p>
        <template v-else>
          <p v-if="matched && !found.length" class="warn" role="status" data-test-id="no-match">
            No picture of this window's coupons tells how dark its marks are: read a coupon from a picture first.
          </p>
          <p class="quiet small">The piece reads <GradeMark grade="measured" /></p>
          <table class="measures">
            <thead>
              <tr>
                <th></th>
                <th class="n">the piece</th>
                <th v-for="(_, i) in found" :key="i" class="n">{{ String.fromCharCode(65 + i) }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="measure in MEASURES" :key="measure">
                <th scope="row">{{ MAP_WORDS[measure].unit }}</th>
                <td class="n mono">{{ piece[measure] === null ? 'not told' : digits(measure, piece[measure]!) }}</td>
                <td v-for="(one, i) in found" :key="i" class="n mono">
                  <template v-if="one.match.expected[measure]"
                    >{{ digits(measure, one.match.expected[measure]!.mean) }}
                    <span class="quiet between"
                      >({{ digits(measure, one.match.expected[measure]!.low) }} to
                      {{ digits(measure, one.match.expected[measure]!.high) }})</span
                    ></template
                  ><template v-else>not told</template>
                </td>
              </tr>
            </tbody>
          </table>
          <article v-for="(one, i) in found" :key="i" class="offer" data-test-id="match">
            <p class="row">
              <strong>{{ String.fromCharCode(65 + i) }} · {{ one.title }}</strong
              ><GradeMark :grade="one.match.choice.proof.grade" />
            </p>
            <p class="mono big">
              {{ units.text('power', one.match.choice.powerPercent) }} ·
              {{ units.text('speed', one.match.choice.speedMmPerS) }}
            </p>
            <p class="quiet small">
              {{ units.text('interval', one.match.choice.intervalMm) }} interval; {{ familyWords(one.family, units) }}
            </p>
            <p>
              Likely <strong class="mono">ΔE₀₀ {{ one.match.remaining.middle.toFixed(1) }}</strong> from the piece
              <span class="quiet"
                >({{ one.match.remaining.low.toFixed(1) }} to {{ one.match.remaining.high.toFixed(1) }}; from about 2 an
                eye sees it side by side)</span
              >, {{ formatDuration(one.match.choice.seconds) }} a piece,
              {{ Math.round(one.match.choice.holds * 100) }} of 100 hold.
            </p>
            <p v-if="one.match.choice.proof.because.length" class="quiet small">
              Not proved: {{ one.match.choice.proof.because.join('; ') }}.
            </p>
            <Button
              :outlined="i > 0"
              :label="
                one.match.choice.proof.grade.startsWith('proved') ? 'Make it a recipe' : 'Make it a recipe all the same'
              "
              data-test-id="match-recipe"
              @click="accept(one)"
            />
          </article>
          <p class="quiet small">
            The ground of the piece is taken for that of the marks to come, and its hue for theirs: a piece on another
            metal is matched in contrast, not in look.
          </p>
        </template>
      </aside>
    </div>
  </template>
</template>

<style scoped>
.match {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 430px;
  min-height: 0;
}

.piece,
aside {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
  padding: 0.9rem 1.4rem 1rem;
  min-width: 0;
  overflow-y: auto;
}

.piece > p,
aside p {
  margin: 0;
}

aside {
  background: var(--unto-surface);
  border-left: 1px solid var(--unto-rule);
}

svg {
  width: 100%;
  max-height: 60vh;
  touch-action: none;
}

.line {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 1rem;
}

.spot {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
  flex: 1;
  max-width: 20rem;
  padding-bottom: 0.5rem;
}

.measures {
  border-collapse: collapse;
}

.measures th,
.measures td {
  padding: 0.25rem 0.5rem;
  border-bottom: 1px solid var(--unto-rule);
  text-align: left;
  font-weight: 400;
}

.measures .n {
  text-align: right;
}

.between {
  display: block;
  white-space: nowrap;
  font-size: 0.85rem;
}

.offer {
  display: flex;
  flex-direction: column;
  gap: 0.35rem;
  align-items: flex-start;
  padding: 0.8rem 0.9rem;
  border: 1px solid var(--unto-rule);
}

.row {
  display: flex;
  justify-content: space-between;
  gap: 0.6rem;
  width: 100%;
}

.big {
  font-size: 1.15rem;
}

.warn {
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--unto-coat-line);
  background: var(--unto-coat-tint);
}

@media (max-width: 900px) {
  .match {
    grid-template-columns: minmax(0, 1fr);
  }

  .piece,
  aside {
    overflow-y: visible;
  }

  aside {
    border-left: 0;
  }
}
</style>
