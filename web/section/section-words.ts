import { formatNumber } from '../ui/format';
import type { Units } from '../ui/useUnits';
import type { SectionModel } from './geometry';

/** What each layer of the section says when it is pointed at. */
export function sectionWords(model: SectionModel, units: Units): { part: string; film: string; beam: string } {
  const bent = model.mode === 'beam' && model.surface ? ` ${model.surface.words}` : '';
  return {
    part: `Part: ${model.material}, ${units.text('length', model.thicknessMm, 3)}.${bent}`,
    film: filmWords(model, units),
    beam: beamWords(model, units),
  };
}

function filmWords(model: SectionModel, units: Units): string {
  const { film, band } = model;
  if (!film) return 'No coat.';
  const wanted = band ? `; wanted ${units.span('film', band.lowUm, band.highUm)}` : '';
  if (model.mode === 'done' && model.fired) return `Fired and washed: only what bonded is left.`;
  const source = film.measured ? 'from the weighing' : 'as planned';
  return `Coat: ${units.figure('film', film.wetUm)} laid wet, ${units.figure('film', film.dryUm)} dry, ${source}${wanted}.`;
}

function beamWords({ beam }: SectionModel, units: Units): string {
  if (!beam) return '';
  const off = `${units.text('length', Math.abs(beam.offsetMm), 3)} ${beam.offsetMm > 0 ? 'above' : 'below'} it`;
  return [
    `Beam: spot ${units.text('length', beam.spotMm, 3)} (1/e²)`,
    `± ${units.text('length', beam.depthMm, 3)} of depth until it grows ${formatNumber(beam.growth * 100)} %`,
    `focus ${beam.offsetMm === 0 ? 'on the surface' : off}`,
    beam.intervalMm === null ? 'no setting chosen yet.' : `lines ${units.text('interval', beam.intervalMm, 3)} apart.`,
  ].join(', ');
}
