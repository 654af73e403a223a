import { fault } from '../errors/api-error.js';

/** Scheme and host of an address, and nothing else of it: what a code on paper opens. @throws invalid-input at `at` */
export function originOf(at: string): string {
  const address = URL.canParse(at) ? new URL(at) : null;
  if (!address || !/^https?:$/.test(address.protocol))
    throw fault('at', 'Say where the workshop is reached, as http://…');
  return address.origin;
}
