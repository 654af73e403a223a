import { parseNumber } from './format';

/** A share as it stands in its field: in percent. */
export function shareToText(share: number | null | undefined): string {
  return share === null || share === undefined || Number.isNaN(share)
    ? ''
    : String(Number((share * 100).toPrecision(8)));
}

/** The share that a text means: “12 %” and “12” are percent, “0.12” is the fraction itself, and “1” is all of it. */
export function shareFromText(text: string): number {
  const [, number, percent] = /^(.*?)\s*(%?)\s*$/.exec(text)!;
  const value = parseNumber(number!);
  return percent || value > 1 ? Number((value / 100).toPrecision(12)) : value;
}
