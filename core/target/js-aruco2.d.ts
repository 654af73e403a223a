/** The parts of js-aruco2 that are used. */
declare module 'js-aruco2/src/aruco.js' {
  interface Marker {
    readonly id: number;
    readonly corners: readonly { readonly x: number; readonly y: number }[];
    readonly hammingDistance: number;
  }
  interface Detector {
    detectImage(width: number, height: number, data: Uint8ClampedArray): Marker[];
  }
  interface Dictionary {
    /** Bits of every mark, row by row; 1 is white. */
    readonly codeList: readonly string[];
  }
  const aruco: {
    readonly AR: {
      readonly Detector: new (config: { dictionaryName: string; maxHammingDistance: number }) => Detector;
      readonly Dictionary: new (name: string) => Dictionary;
      /** Known dictionaries by name; codes in hexadecimal. */
      readonly DICTIONARIES: Record<string, { nBits: number; tau: number; codeList: readonly string[] }>;
    };
  };
  export default aruco;
}
