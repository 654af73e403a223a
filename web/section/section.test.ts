// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';
import SectionDrawing from './SectionDrawing.vue';
import {
  beamOutline,
  filmScale,
  bandAlong,
  hatchMarks,
  lineAlong,
  riseAt,
  surfaceRise,
  nowX,
  pixelsPerUm,
  sinkingFilm,
  VIEW,
  type SectionModel,
} from './geometry';

const model: SectionModel = {
  mode: 'coat',
  fired: false,
  material: '304',
  vitreous: false,
  thicknessMm: 1.2,
  film: { wetUm: 31, dryUm: 9.4, lowUm: 8.3, highUm: 10.5, measured: true },
  band: { lowUm: 8, highUm: 12 },
  drying: 0.3,
  dryS: 240,
  distanceMm: 200,
  surface: null,
  beam: { spotMm: 0.165, rayleighMm: 1.66, depthMm: 0.53, growth: 0.05, offsetMm: 0, intervalMm: 0.06 },
};

const drawn = (change: Partial<SectionModel>) =>
  mount(SectionDrawing, { props: { title: 'Section', model: { ...model, ...change } } });

describe('a section says nothing that was not done', () => {
  it('draws no bonded mark before anything was fired', () => {
    const before = drawn({ mode: 'done' });
    expect(before.findAll('.bonded')).toHaveLength(0);
    expect(before.text()).toContain('nothing was fired yet');
    expect(drawn({ mode: 'done', fired: true }).findAll('.bonded').length).toBeGreaterThan(3);
  });

  it('draws no lines while no setting is chosen', () => {
    const open = drawn({ mode: 'beam', beam: { ...model.beam!, intervalMm: null } });
    expect(open.findAll('.line-tick')).toHaveLength(0);
    expect(open.text()).toContain('no setting chosen yet');
    expect(drawn({ mode: 'beam' }).findAll('.line-tick').length).toBeGreaterThan(3);
  });
});

describe('section', () => {
  it('draws thin and thick films within its room, and says its scale', () => {
    expect(pixelsPerUm(model)).toBeCloseTo(96 / 31, 9);
    expect(pixelsPerUm({ ...model, film: { ...model.film!, wetUm: 2, dryUm: 1 }, band: null })).toBe(5);
    expect(pixelsPerUm({ ...model, film: { ...model.film!, wetUm: 200 } }) * 200).toBeLessThanOrEqual(96 + 1e-9);
    expect(filmScale(model)).toMatch(/^\d+ : 1$/);
    expect(pixelsPerUm({ ...model, film: null, band: null })).toBe(5);
  });

  it('lets the film sink from wet to dry and never below', () => {
    const { topAt } = sinkingFilm(90, 30);
    expect(topAt(0)).toBe(VIEW.surface - 90);
    expect(topAt(1)).toBe(VIEW.surface - 30);
    expect(topAt(7)).toBe(VIEW.surface - 30);
    for (let i = 1; i <= 20; i += 1) expect(topAt(i / 20)).toBeGreaterThanOrEqual(topAt((i - 1) / 20));
  });

  it('moves “now” from left to right and stops when dry', () => {
    expect(nowX(0)).toBeLessThan(nowX(0.5));
    expect(nowX(1)).toBe(nowX(3));
    expect(nowX(1)).toBeLessThan(VIEW.right);
  });

  it('draws the waist at the focus, to scale with the line spacing', () => {
    const outline = beamOutline(model.beam!, 300);
    expect(outline.focusY).toBe(300);
    expect(outline.pxPerMm * model.beam!.spotMm).toBeCloseTo(42, 9);
    const raised = beamOutline({ ...model.beam!, offsetMm: 0.53 }, 300);
    expect(raised.focusY).toBeCloseTo(300 - raised.depthPx, 9);
    const widths = outline.points
      .split(' ')
      .slice(0, 41)
      .map((point) => Number(point.split(',')[0]));
    expect(Math.max(...widths)).toBe(widths.at(-1));
  });

  it('lets the part follow its warp at the scale of the depth of focus, clipped at the edge of the drawing', () => {
    const warped = { ...model, mode: 'beam' as const, surface: { heightsMm: [0, 0.53, -9], words: '' } };
    const rise = surfaceRise(warped, 46);
    expect(rise[1]).toBeCloseTo(46, 9);
    expect(rise[2]).toBe(-84);
    expect(surfaceRise(model, 46)).toEqual([0, 0]);
    expect(riseAt([0, 10], (VIEW.left + VIEW.right) / 2)).toBeCloseTo(5, 9);
    expect(bandAlong([0, 10], 0, 62)).toBe(
      `M${VIEW.left.toFixed(1)} 320.0L${VIEW.right.toFixed(1)} 310.0L${VIEW.right.toFixed(1)} 372.0L${VIEW.left.toFixed(1)} 382.0Z`,
    );
    expect(lineAlong([0, 0], 5)).toMatch(/^M24\.0 315\.0L636\.0 315\.0$/);
  });

  it('spaces lines evenly, and not closer than can be seen', () => {
    const marks = hatchMarks(15);
    expect(marks[1]! - marks[0]!).toBeCloseTo(15, 9);
    expect(marks.every((x) => x > VIEW.left && x < VIEW.right)).toBe(true);
    expect(hatchMarks(0.2)[1]! - hatchMarks(0.2)[0]!).toBe(3);
  });
});
