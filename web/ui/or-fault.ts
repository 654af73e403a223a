import { CoreError } from '@unto/core';
import { ValidationError } from 'yup';

/** What follows from what is typed, or what is wrong with it in words. */
export type OrFault<T> = { readonly result: T; readonly fault: '' } | { readonly result: null; readonly fault: string };

/** Runs a computation of the core or a check of the contract; a refusal becomes its words, anything else is thrown on. */
export function orFault<T>(work: () => T): OrFault<T> {
  try {
    return { result: work(), fault: '' };
  } catch (error) {
    if (error instanceof CoreError || error instanceof ValidationError) return { result: null, fault: error.message };
    throw error;
  }
}
