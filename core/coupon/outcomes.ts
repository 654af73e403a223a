/** What a cell looks like: too little (lost or pale), holds (good), too much (halo, scorch, chip, sunken). */
export const OUTCOMES = ['under', 'holds', 'over'] as const;
export type Outcome = (typeof OUTCOMES)[number];

/** The words used everywhere on screen and paper. */
export const OUTCOME_WORDS: Record<Outcome, string> = { under: 'too little', holds: 'holds', over: 'too much' };

/** Stages at which a cell is looked at. Only the scrubbed one counts as proof. */
export const STAGES = ['rinsed', 'scrubbed'] as const;
export type Stage = (typeof STAGES)[number];

/** Outcome from what a person may write; undefined when it is none of them. Case and spaces do not matter. */
export function outcomeFromWords(text: string): Outcome | undefined {
  const word = text.trim().toLowerCase().replace(/\s+/g, ' ');
  return OUTCOMES.find((outcome) => outcome === word || OUTCOME_WORDS[outcome] === word);
}
