/** The part of culori that the tests compare with. */
declare module 'culori' {
  interface Lab65 {
    readonly l: number;
    readonly a: number;
    readonly b: number;
  }
  export function converter(
    mode: 'lab65',
  ): (colour: { mode: 'rgb' | 'lrgb'; r: number; g: number; b: number }) => Lab65;
  export function differenceCiede2000(): (one: { mode: 'lab65' } & Lab65, other: { mode: 'lab65' } & Lab65) => number;
}
