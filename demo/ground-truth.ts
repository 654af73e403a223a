import type { TruthKey } from '@unto/simulators/ground-truth';

/** How marks of a pairing look when they are right, by eye, and how long a piece takes to clean (minutes). */
export interface DemoLook {
  readonly contrast: number;
  readonly evenness: number;
  readonly cleanMinutes: number;
}

export const LOOKS: Record<TruthKey, DemoLook> = {
  corvidStainless: { contrast: 4.1, evenness: 4.2, cleanMinutes: 0.45 },
  corvidBrass: { contrast: 3.9, evenness: 3.8, cleanMinutes: 0.5 },
  corvidAluminium: { contrast: 3.4, evenness: 3.9, cleanMinutes: 0.5 },
  corvidCopper: { contrast: 3.8, evenness: 3.8, cleanMinutes: 0.55 },
  soothollowAluminium: { contrast: 4.5, evenness: 3.2, cleanMinutes: 0.6 },
  soothollowStainless: { contrast: 4.7, evenness: 3.4, cleanMinutes: 0.55 },
  soothollowBrass: { contrast: 4.5, evenness: 3.3, cleanMinutes: 0.6 },
  greyslipStainless: { contrast: 2.9, evenness: 2.7, cleanMinutes: 4.4 },
  lampglazeGlass: { contrast: 4.4, evenness: 4.3, cleanMinutes: 0.7 },
  lampglazeStoneware: { contrast: 4.2, evenness: 4.1, cleanMinutes: 0.8 },
  lampglazeEnamel: { contrast: 4.6, evenness: 4.4, cleanMinutes: 0.7 },
  ternwhiteEnamel: { contrast: 3.9, evenness: 4, cleanMinutes: 0.9 },
  ternwhiteGlass: { contrast: 3.7, evenness: 3.8, cleanMinutes: 0.9 },
  russetStainless: { contrast: 2.8, evenness: 3.4, cleanMinutes: 0.6 },
  fibreAluminium: { contrast: 3.4, evenness: 3.8, cleanMinutes: 0.1 },
  blueStakes: { contrast: 3.6, evenness: 3.1, cleanMinutes: 0.7 },
  bareAnodised: { contrast: 4.2, evenness: 4.6, cleanMinutes: 0.25 },
};
