import { HANDBOOK, handbookSource } from '@unto/core';
import { NO_KIND, type SubstrateBody } from '@unto/contract';
import type { DemoItem } from './demo-item.js';

/** A substrate with the handbook's thermal values of its material. */
function substrate(
  key: string,
  material: string,
  body: Pick<SubstrateBody, 'name' | 'layer' | 'finish' | 'thicknessMm'> & Partial<SubstrateBody>,
): DemoItem<'substrate'> {
  const known = HANDBOOK.find((entry) => entry.key === material)!;
  return {
    key,
    kind: 'substrate',
    body: {
      ...NO_KIND,
      family: known.family,
      alloy: known.name,
      ground: 'light',
      gaugeNumber: null,
      gaugeMetal: null,
      conductivity: known.conductivity,
      diffusivity: known.diffusivity,
      density: known.density,
      thermalSource: handbookSource(known),
      curvature: '',
      diameterMm: null,
      ...body,
    },
  };
}

export const SUBSTRATES: readonly DemoItem<'substrate'>[] = [
  substrate('stainless-12', '304', {
    name: '304 stainless 2B, 1.2 mm',
    layer: 'bare',
    finish: '2B',
    thicknessMm: 1.2,
  }),
  substrate('stainless-mirror', '304', {
    name: 'Mirror stainless strip, 0.6 mm',
    layer: 'bare',
    finish: 'mirror',
    thicknessMm: 0.635,
    gaugeNumber: 24,
    gaugeMetal: 'stainless',
  }),
  substrate('brass', 'cz108', { name: 'CZ108 brass, 1.6 mm', layer: 'bare', finish: 'brushed', thicknessMm: 1.6 }),
  substrate('copper', 'c101', { name: 'C101 copper, 1.0 mm', layer: 'bare', finish: 'mill', thicknessMm: 1 }),
  substrate('aluminium', '6082', {
    name: '6082 aluminium, 2 mm',
    layer: 'bare',
    finish: 'machined',
    thicknessMm: 2,
  }),
  substrate('anodised', '6082', {
    name: 'Black anodised aluminium, 1.5 mm',
    layer: 'anodised',
    finish: 'black',
    ground: 'dark',
    thicknessMm: 1.5,
  }),
  substrate('stakes', 'mild', {
    name: 'Painted steel plant stake',
    layer: 'painted',
    finish: 'green paint',
    ground: 'dark',
    thicknessMm: 2,
  }),
  substrate('beaker', 'borosilicate', {
    name: 'Borosilicate beaker, ø88',
    layer: 'bare',
    finish: 'clear',
    ground: 'clear',
    thicknessMm: 2.5,
    curvature: 'ø88 mm',
    diameterMm: 88,
  }),
  substrate('pane', 'soda-lime', {
    name: 'Soda-lime pane, 4 mm',
    layer: 'bare',
    finish: 'clear',
    ground: 'clear',
    thicknessMm: 4,
  }),
  substrate('enamel', 'enamel', {
    name: 'Vitreous enamel on steel, 90 mm',
    layer: 'bare',
    finish: 'white gloss',
    thicknessMm: 1.5,
  }),
  substrate('stoneware', 'stoneware', {
    name: 'Glazed stoneware pot, ø120',
    layer: 'bare',
    finish: 'celadon glaze',
    thicknessMm: 6,
    curvature: 'ø120 mm, tapered',
    diameterMm: 120,
  }),
];
