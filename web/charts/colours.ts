import type { ChartColours } from './window-chart';

/** Colours of the open theme from the page's own tokens. */
export function themeColours(): ChartColours {
  const style = getComputedStyle(document.documentElement);
  const token = (name: string) => style.getPropertyValue(`--unto-${name}`).trim();
  return {
    ink: token('ink'),
    quiet: token('quiet'),
    rule: token('rule'),
    surface: token('surface'),
    ground: token('ground'),
    action: token('action'),
    danger: token('danger'),
    bonded: token('bonded'),
  };
}
