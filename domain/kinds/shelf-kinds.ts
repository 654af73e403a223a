import { HANDBOOK, handbookSource, isVitreous, isMetal, type SubstrateFamily, type SurfaceLayer } from '@unto/core';
import type { ShelfKind } from './usual.js';

const DARK_LAYERS: readonly SurfaceLayer[] = ['anodised', 'painted', 'powder-coated'];

/** What is written where nobody has said it. */
export const NOT_NOTED = 'not noted';

const container = (key: string, name: string, about: string, tareG: number, netG: number): ShelfKind<'container'> => ({
  ...{ key, name, about },
  body: { lot: NOT_NOTED, openedOn: null, expiresOn: null, tareG, netG, priceMinor: netG * 12 },
});

/** Containers as they usually come, with what they weigh empty; common practice, no source. */
export const CONTAINER_KINDS: readonly ShelfKind<'container'>[] = [
  container('can-large', 'Aerosol can, large', 'about 400 mL', 95, 340),
  container('can-small', 'Aerosol can, small', 'about 100 to 150 mL', 45, 90),
  container('jar', 'Jar', 'about 500 mL, plastic', 60, 640),
  container('bottle', 'Bottle', 'about 250 mL', 35, 250),
  container('pot', 'Pot of paste', 'about 100 to 250 mL', 30, 250),
];

/** A blank of which only its size is known; common practice, no source. */
export const BLANK_KINDS: readonly ShelfKind<'blank'>[] = [
  {
    key: 'piece',
    name: 'A blank',
    about: 'bought or cut to size',
    body: {
      supplier: NOT_NOTED,
      grade: '',
      lot: '',
      priceMinor: 100,
      widthMm: 70,
      heightMm: 60,
      thicknessMm: 1,
      left: 5,
      note: '',
    },
  },
];

/** Materials of the handbooks: thermal values and density are theirs, thickness and finish the part's. */
export const SUBSTRATE_KINDS: readonly ShelfKind<'substrate'>[] = HANDBOOK.map((material) => ({
  key: material.key,
  name: material.name,
  about: material.family,
  body: {
    family: material.family,
    alloy: material.name,
    layer: 'bare',
    finish: NOT_NOTED,
    ground: groundOf(material.family, 'bare'),
    gaugeNumber: null,
    gaugeMetal: null,
    thicknessMm: usualThicknessMm(material.family),
    conductivity: material.conductivity,
    diffusivity: material.diffusivity,
    thermalSource: handbookSource(material),
    density: material.density,
    curvature: '',
    diameterMm: null,
  },
}));

function usualThicknessMm(family: SubstrateFamily): number {
  if (isMetal(family)) return 1;
  return isVitreous(family) ? 4 : 3;
}

/** How light a ground usually is; common practice, no source. */
export function groundOf(family: SubstrateFamily, layer: SurfaceLayer): 'light' | 'dark' | 'clear' {
  if (DARK_LAYERS.includes(layer)) return 'dark';
  if (family === 'acrylic') return 'dark';
  return family === 'glass' ? 'clear' : 'light';
}

const METAL_FINISHES = ['mill', 'brushed', 'mirror', 'satin', 'blasted', 'machined'] as const;
const VITREOUS_FINISHES = ['clear', 'gloss', 'matt', 'frosted'] as const;

/** Finishes a family is usually had in, to choose from; another one can be typed. */
export function finishesOf(family: SubstrateFamily): readonly string[] {
  if (isMetal(family)) return METAL_FINISHES;
  return isVitreous(family) ? VITREOUS_FINISHES : ['gloss', 'matt'];
}
