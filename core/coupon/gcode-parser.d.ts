/** The part of gcode-parser that the tests compare with. */
declare module 'gcode-parser' {
  const parser: {
    parseStringSync(text: string): { line: string; words: [letter: string, value: number][] }[];
  };
  export default parser;
}
