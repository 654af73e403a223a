import type { Aim } from '@unto/contract';
import type { CouponAxis } from '@unto/core';
import type { TruthKey } from './truths.js';

/** How far a demo job has come. */
export type DemoStage = 'choosing' | 'coupon rinsed' | 'coating' | 'marking' | 'done';

/** A job of the demo workshop from which ticket, coupons and runs are made. */
export interface DemoJob {
  readonly key: string;
  readonly title: string;
  readonly pieces: number;
  readonly mark: readonly [widthMm: number, heightMm: number];
  readonly substrate: string;
  readonly head: string;
  readonly lens: string;
  readonly compound: string | null;
  readonly container: string | null;
  readonly reason: string;
  readonly aim: Aim;
  readonly foodUse?: boolean;
  /** Days before the demo is loaded. */
  readonly opened: number;
  readonly wanted: number | null;
  readonly stage: DemoStage;
  readonly truth: TruthKey | null;
  readonly axes?: { readonly x: CouponAxis; readonly y: CouponAxis; readonly block?: CouponAxis };
  readonly intervalMm?: number;
  readonly runs?: number;
  readonly piecesPerRun?: number;
  readonly air?: 'on' | 'off';
  readonly faults?: { readonly every: number; readonly fault: string };
  readonly note?: string;
  /** Mean dry mass and transfer of the coat, for its weighings: µm and share. */
  readonly film?: { readonly meanUm: number; readonly transfer: number };
}

const power = (from: number, to: number, count: number): CouponAxis => ({
  parameter: 'power',
  spacing: 'linear',
  from,
  to,
  count,
});
const speed = (from: number, to: number, count: number): CouponAxis => ({
  parameter: 'speed',
  spacing: 'log',
  from,
  to,
  count,
});
const DARK: Aim = { tone: 'dark on light', strength: 'strong', work: 'line work' };
const FILL: Aim = { tone: 'dark on light', strength: 'clear', work: 'fill' };
const LIGHT: Aim = { tone: 'light on dark', strength: 'clear', work: 'fill' };
const CO2 = { head: 'co2', lens: 'lens-50' };

export const DEMO_JOBS: readonly DemoJob[] = [
  {
    key: 'fern',
    title: 'Fern house frame plates',
    pieces: 120,
    mark: [60, 18],
    substrate: 'stainless-12',
    ...CO2,
    compound: 'corvid',
    container: 'corvid-k5',
    reason: 'Film can be stacked between shifts.',
    aim: FILL,
    opened: 420,
    wanted: 380,
    stage: 'done',
    truth: 'corvidStainless',
    axes: { x: power(40, 100, 7), y: speed(60, 450, 8) },
    runs: 24,
    piecesPerRun: 5,
    film: { meanUm: 9.2, transfer: 0.37 },
  },
  {
    key: 'valves',
    title: 'Steam valve tallies',
    pieces: 60,
    mark: [22, 22],
    substrate: 'brass',
    ...CO2,
    compound: 'corvid',
    container: 'corvid-k5',
    reason: 'Only film we had proved on brass.',
    aim: DARK,
    opened: 360,
    wanted: 330,
    stage: 'done',
    truth: 'corvidBrass',
    axes: { x: power(40, 100, 6), y: speed(60, 400, 7) },
    runs: 20,
    piecesPerRun: 3,
    film: { meanUm: 9.9, transfer: 0.36 },
    faults: { every: 7, fault: 'grainy' },
  },
  {
    key: 'pots',
    title: 'Stoneware cactus pots',
    pieces: 40,
    mark: [45, 20],
    substrate: 'stoneware',
    ...CO2,
    compound: 'lampglaze',
    container: 'lampglaze-l3',
    reason: 'Rinses with plain water.',
    aim: DARK,
    opened: 300,
    wanted: 270,
    stage: 'done',
    truth: 'lampglazeStoneware',
    axes: { x: power(15, 65, 6), y: speed(60, 400, 6) },
    intervalMm: 0.08,
    runs: 20,
    piecesPerRun: 2,
    film: { meanUm: 22, transfer: 0.44 },
  },
  {
    key: 'labels',
    title: 'Palm house bed tags, second lot',
    pieces: 90,
    mark: [38, 22],
    substrate: 'stainless-12',
    ...CO2,
    compound: 'soothollow',
    container: 'soothollow-s2',
    reason: 'Fastest in the bench test.',
    aim: FILL,
    opened: 240,
    wanted: 210,
    stage: 'done',
    truth: 'soothollowStainless',
    axes: { x: power(40, 100, 7), y: speed(90, 560, 8) },
    runs: 18,
    piecesPerRun: 5,
    film: { meanUm: 13.6, transfer: 0.31 },
    faults: { every: 6, fault: 'density drifts' },
  },
  {
    key: 'spanner',
    title: 'Spanner board outlines',
    pieces: 30,
    mark: [80, 12],
    substrate: 'stainless-mirror',
    ...CO2,
    compound: 'greyslip',
    container: 'greyslip-g1',
    reason: 'Cheap, and grain does not matter here.',
    aim: { tone: 'dark on light', strength: 'soft', work: 'line work' },
    opened: 190,
    wanted: 170,
    stage: 'done',
    truth: 'greyslipStainless',
    axes: { x: power(60, 100, 5), y: speed(20, 110, 6) },
    runs: 15,
    piecesPerRun: 2,
    film: { meanUm: 14, transfer: 0.4 },
    faults: { every: 4, fault: 'grainy' },
  },
  {
    key: 'herbarium',
    title: 'Herbarium drawer plates',
    pieces: 200,
    mark: [50, 15],
    substrate: 'anodised',
    head: 'blue',
    lens: 'lens-blue',
    compound: null,
    container: null,
    reason: 'Anodised: the layer itself is burnt off, no compound.',
    aim: LIGHT,
    opened: 130,
    wanted: 100,
    stage: 'done',
    truth: 'bareAnodised',
    axes: { x: power(30, 100, 5), y: speed(40, 240, 6) },
    intervalMm: 0.07,
    runs: 25,
    piecesPerRun: 8,
  },
  {
    key: 'shutter',
    title: 'Shutter-drive scale',
    pieces: 4,
    mark: [160, 14],
    substrate: 'aluminium',
    ...CO2,
    compound: 'soothollow',
    container: 'soothollow-s2',
    reason: 'Film-forming compounds mark aluminium too slowly.',
    aim: DARK,
    opened: 34,
    wanted: -6,
    stage: 'marking',
    truth: 'soothollowAluminium',
    axes: { x: power(50, 100, 6), y: speed(50, 300, 7) },
    intervalMm: 0.05,
    runs: 2,
    piecesPerRun: 1,
    air: 'on',
    faults: { every: 1, fault: 'pale along one edge' },
    note: 'Marks come out pale along one edge.',
    film: { meanUm: 13.2, transfer: 0.31 },
  },
  {
    key: 'orchid',
    title: 'Orchid bed tags',
    pieces: 48,
    mark: [38, 22],
    substrate: 'stainless-12',
    ...CO2,
    compound: 'corvid',
    container: 'corvid-k7',
    reason: 'Proved on this stainless; can wait on the rack.',
    aim: FILL,
    opened: 12,
    wanted: -3,
    stage: 'marking',
    truth: 'corvidStainless',
    axes: {
      x: power(40, 100, 7),
      y: speed(60, 450, 8),
      block: { parameter: 'interval', spacing: 'list', values: [0.05, 0.08] },
    },
    runs: 4,
    piecesPerRun: 6,
    faults: { every: 4, fault: 'faint in one corner' },
    film: { meanUm: 9.4, transfer: 0.37 },
  },
  {
    key: 'circle',
    title: 'Setting circle of the 1911 refractor',
    pieces: 1,
    mark: [180, 12],
    substrate: 'brass',
    ...CO2,
    compound: 'corvid',
    container: 'corvid-k7',
    reason: 'Has held on CZ108 before.',
    aim: { tone: 'dark on light', strength: 'strong', work: 'line work' },
    opened: 5,
    wanted: -10,
    stage: 'coupon rinsed',
    truth: 'corvidBrass',
    axes: { x: power(50, 100, 6), y: speed(80, 320, 6) },
    film: { meanUm: 10.4, transfer: 0.37 },
  },
  {
    key: 'beakers',
    title: 'Rain-gauge beakers',
    pieces: 12,
    mark: [30, 70],
    substrate: 'beaker',
    ...CO2,
    compound: 'lampglaze',
    container: 'lampglaze-l3',
    reason: 'Named for glass by its maker; rinses with water.',
    aim: DARK,
    foodUse: false,
    opened: 3,
    wanted: -4,
    stage: 'coating',
    truth: 'lampglazeGlass',
    axes: { x: power(12, 50, 6), y: speed(60, 400, 7) },
    intervalMm: 0.08,
    film: { meanUm: 22.5, transfer: 0.44 },
  },
  {
    key: 'markers',
    title: 'Arboretum trail markers',
    pieces: 30,
    mark: [64, 40],
    substrate: 'enamel',
    ...CO2,
    compound: null,
    container: null,
    reason: '',
    aim: DARK,
    opened: 1,
    wanted: -9,
    stage: 'choosing',
    truth: null,
  },
  {
    key: 'wall',
    title: 'Lecture theatre wall piece',
    pieces: 1,
    mark: [280, 200],
    substrate: 'pane',
    ...CO2,
    compound: null,
    container: null,
    reason: '',
    aim: { tone: 'dark on light', strength: 'clear', work: 'photograph' },
    opened: 0.3,
    wanted: -40,
    stage: 'choosing',
    truth: null,
  },
];
