import { array, type InferType } from 'yup';
import { CARD_SIZES, PRINT_BASES, type CardPrint } from '@unto/core';
import {
  amount,
  describes,
  instant,
  keptHash,
  oneOf,
  orNull,
  record,
  shape,
  uuid,
  who,
  within,
  word,
  words,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** What a card's print throws back, shares of light. Whether it can be a print, the core checks. */
export const cardPrint = shape({
  basis: oneOf('How it is known', PRINT_BASES),
  paper: within('Paper', 0, 1),
  steps: array()
    .of(within('Grey step', 0, 1))
    .required()
    .max(100),
});
describes<CardPrint>()(cardPrint);

/** The print of the shop's card of a size: measured, or from a photograph (kept as a file) beside a white of so much light. */
export const createCard = shape({
  id: uuid().label('id'),
  size: oneOf('Card', CARD_SIZES),
  print: cardPrint,
  white: within('White sheet', 0.5, 1).nullable().defined().default(null),
  fileHash: keptHash('The picture').nullable().defined().default(null),
});
export type CreateCard = Frozen<InferType<typeof createCard>>;

/** A card as it was last characterised. */
export const card = record({
  id: uuid(),
  size: word(CARD_SIZES),
  print: cardPrint,
  white: orNull(amount()),
  fileHash: orNull(words()),
  at: instant(),
  by: who(),
});
export type Card = Frozen<InferType<typeof card>>;
