import type { Grade, Outcome } from '@unto/core';
import { computed, type Ref } from 'vue';
import { formatFigure } from '../ui/format';
import type { useCoupon } from './useCoupon';

type CouponState = ReturnType<typeof useCoupon>;

/** Outcomes of the stage that is shown: kept, proposed by its picture, taken by hand or marked by eye; and what is said of them. */
export function useOutcomes({
  made,
  stage,
  pictures,
  eye,
  selected,
  brush,
}: Pick<CouponState, 'made' | 'stage' | 'pictures' | 'eye'> & {
  readonly selected: Ref<number>;
  readonly brush: Ref<Outcome>;
}) {
  const open = computed(() => pictures.pictures[stage.value]);
  const readsPicture = computed(() => Boolean(open.value?.entries));
  const shown = computed(() => (readsPicture.value ? pictureOutcomes.value : eye.marks.value));
  /** What is kept, and over it what the picture proposes or somebody took. */
  const pictureOutcomes = computed(() => {
    const proposed = pictures.outcomes(stage.value);
    const taken = pictures.byHand[stage.value];
    return new Map([
      ...proposed,
      ...(open.value?.keptAs ? eye.kept.value : []),
      ...[...taken].map(([cell, { outcome }]) => [cell, outcome] as const),
    ]);
  });
  const unreadable = computed(
    () =>
      new Map(
        (open.value?.entries?.cells ?? []).flatMap(({ cell, unreadable: why }) => (why ? [[cell, why] as const] : [])),
      ),
  );
  const taken = computed(() => pictures.byHand[stage.value].get(selected.value) ?? null);
  const proposed = computed(() => pictures.proposals.value[stage.value].get(selected.value) ?? null);
  const reasonsMissing = computed(
    () => [...pictures.byHand[stage.value].values()].filter(({ reason }) => !reason.trim()).length,
  );
  const grade = computed<Grade>(() => {
    const read = eye.reads.value.get(selected.value);
    if (!read) return 'guess';
    if (stage.value !== 'scrubbed') return 'seen';
    return read.byEye ? 'proved by eye' : 'proved';
  });
  const about = computed(() => {
    const reading = open.value;
    if (!reading?.entries) return '';
    const { cells, mmPerPx, card, unevenness } = reading.entries;
    const read = cells.filter(({ unreadable: why }) => !why).length;
    const light =
      unevenness > 1.6 ? `light very uneven (1 : ${formatFigure(unevenness, 2)}), levelled` : 'light levelled';
    const missing = reading.missing.length ? `${reading.missing.join(', ')} mark covered, ` : '';
    return `card ${card} found, ${missing}straightened, ${light} · ${formatFigure(mmPerPx, 2)} mm a pixel · ${read} of ${cells.length} cells readable${reading.tookS === null ? '' : ` · read in ${reading.tookS.toFixed(1)} s`}`;
  });

  function mark(cell: number, outcome: Outcome | null): void {
    if (!readsPicture.value) return eye.mark(cell, outcome);
    const own = pictures.byHand[stage.value];
    const proposal = pictures.proposals.value[stage.value].get(cell)?.outcome ?? null;
    if (outcome === null || (outcome === proposal && !open.value?.keptAs)) own.delete(cell);
    else own.set(cell, { outcome, reason: own.get(cell)?.reason ?? '' });
  }

  function rest(): void {
    made.value?.layout.cells.forEach(
      ({ index }) => pictures.burnt(index) && !eye.marks.value.has(index) && eye.mark(index, brush.value),
    );
  }

  return { readsPicture, shown, unreadable, taken, proposed, reasonsMissing, grade, about, mark, rest };
}
