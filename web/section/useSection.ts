import { dryFilm, isVitreous, type Figure } from '@unto/core';
import { rayleighOf } from '@unto/contract';
import { computed, type ComputedRef, type Ref } from 'vue';
import { useNow } from '../stores/now';
import { useTicket } from '../stores/ticket';
import type { SectionModel } from './geometry';

/** The section of the open ticket, from its plan and its record. */
export function useSection(
  mode: SectionModel['mode'],
  more: { intervalMm?: Ref<number>; offsetMm?: Ref<number> } = {},
): ComputedRef<SectionModel | null> {
  const ticket = useTicket();
  const time = useNow();
  return computed(() => {
    const { page, fitted, compound } = ticket;
    if (!page || !fitted) return null;
    const recipe = page.recipes[0];
    const clock = page.clocks.find(({ kind, endedAt }) => kind === 'dry' && !endedAt);
    const measured = page.weighings.at(-1)?.film ?? null;
    const { substrate, lens } = fitted;
    return {
      mode,
      material: substrate.name,
      vitreous: isVitreous(substrate.family),
      thicknessMm: substrate.thicknessMm,
      film: compound ? filmOf(compound.body, measured) : null,
      band: compound ? { lowUm: compound.body.bandLowUm, highUm: compound.body.bandHighUm } : null,
      drying: clock ? (time.now - Date.parse(clock.startedAt)) / 1000 / clock.minimumS : null,
      dryS: compound?.body.dryS ?? null,
      distanceMm: compound ? (compound.body.distanceMinMm + compound.body.distanceMaxMm) / 2 : null,
      beam: {
        spotMm: Math.sqrt(lens.spotXMm * lens.spotYMm),
        rayleighMm: rayleighOf(lens),
        depthMm: lens.depthOfFocusMm,
        growth: lens.depthGrowth,
        offsetMm: more.offsetMm?.value ?? recipe?.focusOffsetMm ?? 0,
        intervalMm: more.intervalMm?.value ?? recipe?.intervalMm ?? 0.06,
      },
    };
  });
}

function filmOf(
  compound: { bandLowUm: number; bandHighUm: number; volumeSolids: number; thinnerRatio: number },
  measured: Figure | null,
): SectionModel['film'] {
  const dryUm = measured?.value ?? (compound.bandLowUm + compound.bandHighUm) / 2;
  const share = dryFilm(1, compound);
  return {
    dryUm,
    wetUm: dryUm / share,
    lowUm: measured?.interval?.low ?? null,
    highUm: measured?.interval?.high ?? null,
    measured: measured !== null,
  };
}
