/** What we use of a package without types. */
declare module 'dxf' {
  export interface DxfPolyline {
    readonly vertices: readonly (readonly [number, number])[];
  }
  export interface ParsedDxf {
    readonly header: { readonly insUnits?: number };
    readonly entities: readonly { readonly type: string }[];
  }
  export function parseString(text: string): ParsedDxf;
  export function toPolylines(parsed: ParsedDxf): { readonly polylines: readonly DxfPolyline[] };
  export const config: { verbose: boolean };
}
