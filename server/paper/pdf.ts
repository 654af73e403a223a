import { FileAnswer } from '../http/file-answer.js';

/** What makes PDFs, loaded when the first paper is asked for: the start does not wait for it. */
let maker: Promise<(typeof import('pdfmake'))['default']> | undefined;
const pdfMaker = () => (maker ??= preparedMaker());

async function preparedMaker() {
  const { default: pdfmake } = await import('pdfmake');
  // The fourteen fonts every PDF reader has: nothing needs to be embedded.
  pdfmake.addFonts({
    Helvetica: {
      normal: 'Helvetica',
      bold: 'Helvetica-Bold',
      italics: 'Helvetica-Oblique',
      bolditalics: 'Helvetica-BoldOblique',
    },
  });
  // Papers are made of what stands here; nothing is loaded for them but the names of those fonts.
  pdfmake.setUrlAccessPolicy(() => false);
  pdfmake.setLocalAccessPolicy((path) => /^Helvetica/.test(path));
  return pdfmake;
}

/** A PDF of what a definition of its maker says, in Helvetica. */
export async function pdf(name: string, definition: object): Promise<FileAnswer> {
  const whole = { defaultStyle: { font: 'Helvetica', fontSize: 9.5, lineHeight: 1.15 }, ...definition };
  return new FileAnswer(name, 'application/pdf', await (await pdfMaker()).createPdf(whole).getBuffer());
}
