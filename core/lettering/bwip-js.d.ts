/** What we use of a package whose types are told for a platform only. */
declare module 'bwip-js' {
  const bwip: { raw(options: { bcid: string; text: string }): unknown[] };
  export default bwip;
}
