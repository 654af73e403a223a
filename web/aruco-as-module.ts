import type { Plugin } from 'vite';

/** Lines of js-aruco2 that lean on `this` being a script's exports, which it is not once bundled. */
const MENDS: Record<string, readonly (readonly [RegExp, string])[]> = {
  'aruco.js': [
    [/^var CV = this\.CV \|\| require\('\.\/cv'\)\.CV;$/m, "import { CV } from './cv.js';"],
    [/^this\.AR = AR;$/m, 'export default { AR };'],
  ],
  'cv.js': [[/^this\.CV = CV;$/m, 'export { CV };']],
};

/** Makes modules of the two scripts of js-aruco2 that are used, in builds, workers and while developing. */
export function arucoAsModule(): Plugin {
  return {
    name: 'aruco-as-module',
    enforce: 'pre',
    transform(code, id) {
      const file = /\/js-aruco2\/src\/(aruco|cv)\.js/.exec(id)?.[0].split('/').pop();
      if (!file) return null;
      const mended = MENDS[file]!.reduce((text, [from, to]) => {
        if (!from.test(text)) throw new Error(`${file} of js-aruco2 reads other than expected: mend ${String(from)}`);
        return text.replace(from, to);
      }, code);
      return { code: mended, map: null };
    },
  };
}
