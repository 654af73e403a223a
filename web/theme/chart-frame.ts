import type { ChartColours } from './colours';

/** The page's letters on a chart: words, and figures that stand in columns. */
export const LETTERS = { words: 'Atkinson Hyperlegible', figures: 'JetBrains Mono' } as const;

/** What every chart of the page begins with: its letters, and nothing that moves. What it shows is said by whoever draws it. */
export const chartFrame = {
  animation: false,
  textStyle: { fontFamily: LETTERS.words },
} as const;

/** How a tip looks. */
export const chartTip = (colours: ChartColours) => ({
  backgroundColor: colours.surface,
  borderColor: colours.rule,
  textStyle: { color: colours.ink },
});

/** An axis: a line, its figures, its name a size larger. */
export const chartAxis = (colours: ChartColours, fontSize = 13) => ({
  axisLine: { lineStyle: { color: colours.ink } },
  axisLabel: { color: colours.ink, fontFamily: LETTERS.figures, fontSize },
  splitLine: { show: false },
  nameTextStyle: { color: colours.quiet, fontSize: fontSize + 1 },
});
