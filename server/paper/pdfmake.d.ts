/** The part of pdfmake 0.3 that is used. */
declare module 'pdfmake' {
  interface Pdfmake {
    addFonts(fonts: Record<string, { normal: string; bold: string; italics: string; bolditalics: string }>): void;
    /** What a document may load from outside. */
    setUrlAccessPolicy(allows: () => boolean): void;
    setLocalAccessPolicy(allows: (path: string) => boolean): void;
    createPdf(definition: object): { getBuffer(): Promise<Buffer> };
  }
  const pdfmake: Pdfmake;
  export default pdfmake;
}
