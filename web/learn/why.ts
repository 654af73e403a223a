import type { Station } from '@unto/core';

/** Why a station is there: three sentences, and where practitioners disagree which way is taken here unless somebody says otherwise. */
export interface Why {
  readonly title: string;
  readonly sentences: readonly [string, string, string];
  readonly schools: { readonly views: readonly [string, string]; readonly here: string } | null;
}

/** Common practice, no source. */
export const WHYS: Record<Station, Why> = {
  choose: {
    title: 'Why choose before spraying',
    sentences: [
      'Bare, plated, anodised and lacquered metal look alike and need opposite settings: find out which it is first.',
      'A compound bonds to a bare metallic surface, or to glass and glaze made for it; through lacquer, paint or anodising it does not.',
      'No compound is best everywhere: dark, fast, even, easy to clean, cheap and easy to handle pull in different directions.',
    ],
    schools: {
      views: [
        'A purpose-made compound: dark and easy to clean.',
        'A dry-film lubricant: a third to a seventh of the price.',
      ],
      here: 'Both are ranked by what counts in this shop; the lubricant only on stainless, until a coupon shows more.',
    },
  },
  prepare: {
    title: 'Why measure and degrease',
    sentences: [
      'Sheet sold as twelve inches is often up to half an inch under, and a jig cut to the nominal size holds nothing.',
      'Thin sheet warps, and where it lies outside the depth of focus the mark comes out pale.',
      'A fingerprint is a film of its own: the coat does not stick there, and the mark shows it.',
    ],
    schools: null,
  },
  coat: {
    title: 'Why so thin a coat, and why weigh it',
    sentences: [
      'Polished metal throws most of the beam back; the coat takes it up and bonds with what it heats below.',
      'Too thick, and the heat never reaches the metal: it washes off whole. Too thin, and the mark is pale and patchy.',
      'What left the can over the area that was sprayed tells the film, which no eye does.',
    ],
    schools: {
      views: ['One thin coat that just hides the metal.', 'Two thin coats, or one heavy wet one.'],
      here: 'What the compound’s label says; the coat is weighed, so that your own record settles it.',
    },
  },
  place: {
    title: 'Why focus on a twin',
    sentences: [
      'At the focus the spot is smallest and the heat on it highest; away from it both fade fast.',
      'Small infrared heads keep their focus for less than a millimetre either way, so a lever or a guess is not enough.',
      'Hunting for it with the beam on marks the part even at one percent: do it on an uncoated twin or on scrap.',
    ],
    schools: {
      views: ['Best focus, always.', 'A little above the surface, for some marks by fibre on aluminium.'],
      here: 'The focus offset is part of every setting, 0 unless somebody says otherwise.',
    },
  },
  prove: {
    title: 'Why a coupon, and why the pad',
    sentences: [
      'A blank and a few grams show in one go where a mark holds, over speed and power; guessing costs a piece a guess.',
      'After the rinse nearly every cell looks marked: only the scrub tells what bonded.',
      'Between too little and too much lies a window, and the safest setting is not the fastest one.',
    ],
    schools: {
      views: ['Judge by eye after the rinse.', 'Judge after a hard scrub.'],
      here: 'Only a scrubbed coupon counts as proof.',
    },
  },
  mark: {
    title: 'Why write down how it was fired',
    sentences: [
      'A setting is more than power and speed: focus, interval, passes, air and extraction decide as well.',
      'Air assist blows loose powder away, and strong extraction can too: the mark then drifts across the job.',
      'What was not fired as proved is not proved, however good it looks today.',
    ],
    schools: {
      views: ['Air assist off.', 'Air assist on, to keep the lens clean.'],
      here: 'Off for coats that dry to powder, free for films; noted with every run.',
    },
  },
  clean: {
    title: 'Why note the cleaning',
    sentences: [
      'What did not bond comes off; how hard that was to get off is part of what a compound costs.',
      'Glass must be cool to the hand before it is rinsed, or it cracks.',
      'Residue tells: round parts keep it where they lay on the rollers, and a dark haze is not a mark.',
    ],
    schools: {
      views: ['A rinse and a soft sponge.', 'A hard scrub, or the dishwasher.'],
      here: 'The gentler way first; what was done is kept per material.',
    },
  },
  judge: {
    title: 'Why judge what looks good',
    sentences: [
      'A mark that goes under the pad tells of dose, focus or coat, and of the compound last.',
      'Where it is pale tells why: one corner is warp, patches are the coat, grain is speed or line interval.',
      'A judgement beside its setting is what makes the next job of this kind a repetition instead of a trial.',
    ],
    schools: null,
  },
};
