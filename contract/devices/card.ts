import { object } from 'yup';
import { CARD_SIZES } from '@unto/core';
import { oneOf } from '../fields/index.js';

export const cardQuery = object({ size: oneOf('Size', CARD_SIZES).default('A5') });
