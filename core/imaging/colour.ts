/** Linear light of an 8-bit sRGB value, 0 to 1, by table. Source: IEC 61966-2-1. */
export const SRGB_TO_LINEAR: Float64Array = Float64Array.from({ length: 256 }, (_, byte) => srgbToLinear(byte / 255));

/** Linear light of an sRGB value of 0 to 1. Source: IEC 61966-2-1. @example srgbToLinear(0.5) // 0.2140 */
export function srgbToLinear(value: number): number {
  return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
}

/** sRGB value of linear light, both 0 to 1. Inverse of srgbToLinear. */
export function linearToSrgb(light: number): number {
  return light <= 0.0031308 ? light * 12.92 : 1.055 * light ** (1 / 2.4) - 0.055;
}

/** CIE L*a*b* of linear sRGB light. */
export interface Lab {
  readonly l: number;
  readonly a: number;
  readonly b: number;
}

/** D65 white of sRGB, Y = 1 (IEC 61966-2-1: x 0.3127, y 0.3290). */
const WHITE = { x: 0.3127 / 0.329, z: (1 - 0.3127 - 0.329) / 0.329 };

/** Relative luminance of linear sRGB light (Rec. 709 primaries), 0 to 1. */
export function luminance(r: number, g: number, b: number): number {
  return 0.2126390058715104 * r + 0.7151686787677559 * g + 0.0721923153607337 * b;
}

/** CIE L*a*b* (D65) of linear sRGB light, each 0 to 1. Source: CIE 15, IEC 61966-2-1. */
export function linearToLab(r: number, g: number, b: number): Lab {
  const x = 0.4123907992659595 * r + 0.357584339383878 * g + 0.1804807884018343 * b;
  const z = 0.0193308187155918 * r + 0.119194779794626 * g + 0.9505321522496607 * b;
  const [fx, fy, fz] = [cube(x / WHITE.x), cube(luminance(r, g, b)), cube(z / WHITE.z)];
  return { l: 116 * fy - 16, a: 500 * (fx - fy), b: 200 * (fy - fz) };
}

/** L* of a relative luminance of 0 to 1. @example lightness(0.18) // 49.5 */
export function lightness(y: number): number {
  return 116 * cube(y) - 16;
}

/** Cube root with the straight foot of CIE 15: (6/29)³ and 841/108. */
function cube(t: number): number {
  return t > 216 / 24389 ? Math.cbrt(t) : (841 / 108) * t + 4 / 29;
}
