import { dryFilm, isVitreous, sag, warpSurface, type Figure } from '@unto/core';
import type { PlaceReading, Ticket } from '@unto/contract';
import { bandOf, focusDepth, rayleighOf, runningTimers } from '@unto/domain';
import { computed, type ComputedRef, type Ref } from 'vue';
import { useNow } from '../stores/now';
import { useTicket } from '../stores/ticket';
import { useUnits, type Units } from '../ui/useUnits';
import type { SectionModel } from './geometry';

/** The section of the open ticket, from its plan and its record. */
export function useSection(
  mode: SectionModel['mode'],
  more: { intervalMm?: Ref<number>; offsetMm?: Ref<number> } = {},
): ComputedRef<SectionModel | null> {
  const ticket = useTicket();
  const units = useUnits();
  const time = useNow();
  return computed(() => {
    const { page, fitted, compound } = ticket;
    if (!page || !fitted) return null;
    const recipe = page.recipes[0];
    const run = page.runs[0];
    const [drying] = runningTimers(page.timers, 'dry');
    const measured = page.weighings.at(-1)?.film ?? null;
    const { substrate, lens } = fitted;
    return {
      mode,
      fired: page.progress.markedPieces > 0,
      material: substrate.name,
      vitreous: isVitreous(substrate.family),
      thicknessMm: substrate.thicknessMm,
      film: compound ? filmOf(compound.body, measured) : null,
      band: compound ? bandOf(compound.body) : null,
      drying: drying ? (time.now - Date.parse(drying.startedAt)) / 1000 / drying.minimumS : null,
      dryS: compound?.body.dryS ?? null,
      distanceMm: compound ? (compound.body.distanceMinMm + compound.body.distanceMaxMm) / 2 : null,
      surface: surfaceOf(page.placeReadings, page.ticket, units),
      beam: {
        spotMm: Math.sqrt(lens.spotXMm * lens.spotYMm),
        rayleighMm: rayleighOf(lens),
        depthMm: focusDepth(lens, page.huntedDepth).value,
        growth: lens.depthGrowth,
        offsetMm: more.offsetMm?.value ?? recipe?.focusOffsetMm ?? 0,
        intervalMm: more.intervalMm?.value ?? recipe?.intervalMm ?? run?.intervalMm ?? null,
      },
    };
  });
}

function filmOf(
  compound: { dryFilmMinUm: number; dryFilmMaxUm: number; volumeSolids: number; thinnerRatio: number },
  measured: Figure | null,
): SectionModel['film'] {
  const dryUm = measured?.value ?? (compound.dryFilmMinUm + compound.dryFilmMaxUm) / 2;
  const share = dryFilm(1, compound);
  return {
    dryUm,
    wetUm: dryUm / share,
    lowUm: measured?.interval?.low ?? null,
    highUm: measured?.interval?.high ?? null,
    measured: measured !== null,
  };
}

const ACROSS = 41;

/** The newest flatness or round part read on the ticket, as the line over the middle of the artwork; a rejected piece is gone. */
function surfaceOf(readings: readonly PlaceReading[], ticket: Ticket, units: Units): SectionModel['surface'] {
  const newest = readings.find(
    ({ kind, decision }) => (kind === 'flatness' && decision !== 'rejected') || kind === 'round',
  );
  if (!newest) return null;
  const { markWidthMm, markHeightMm } = ticket;
  const shares = Array.from({ length: ACROSS }, (_, i) => i / (ACROSS - 1));
  if (newest.kind === 'flatness') {
    const { entries, decision } = newest as PlaceReading<'flatness'>;
    const surface = warpSurface(entries.readings);
    const heightsMm = shares.map((share) => surface.heightAt(share * markWidthMm, markHeightMm / 2) - entries.focusMm);
    return { heightsMm, words: `Heights as read, ${decision}.` };
  }
  const { entries, result } = newest as PlaceReading<'round'>;
  const radius = Math.min(entries.nearMm, entries.farMm) / 2;
  const half = Math.min(markWidthMm / 2, radius * 0.98);
  const whole = sag(radius, 2 * half);
  const focusBelow = result.strips[0]?.focusBelowMm ?? whole / 2;
  const heightsMm = shares.map((share) => {
    const chord = Math.abs(2 * share - 1) * 2 * half;
    return focusBelow - (chord > 0 ? sag(radius, chord) : 0);
  });
  return { heightsMm, words: `Lying still, ø ${units.text('length', entries.nearMm)}.` };
}
