/** Colours of the open theme, read from the page so that both themes draw alike. */
export interface ChartColours {
  readonly ink: string;
  readonly quiet: string;
  readonly rule: string;
  readonly surface: string;
  readonly ground: string;
  readonly action: string;
  readonly danger: string;
  readonly bonded: string;
}

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
