import type { EarlierWindow } from '@unto/core';
import type { Teaching } from '@unto/contract';
import { earlierWindows } from '@unto/domain';

/** More fits than a shop has windows of its compounds open at once. */
const MOST = 48;
const fitted = new Map<string, EarlierWindow>();

/** The windows that teachings come to; what one of them came to before is not fitted anew. */
export function earlierOf(teachings: readonly Teaching[]): EarlierWindow[] {
  return teachings.map((teaching) => {
    const key = JSON.stringify(teaching);
    const known = fitted.get(key);
    if (known) return known;
    const [made] = earlierWindows([teaching]) as [EarlierWindow];
    if (fitted.size >= MOST) fitted.delete(fitted.keys().next().value!);
    fitted.set(key, made);
    return made;
  });
}
