import { existsSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express } from 'express';

const NONCE_MARK = '__UNTO_NONCE__';

/**
 * Serves the built client: hashed files for a year, the page itself fresh with the nonce of its styles.
 */
export function serveClient(app: Express, folder: string): void {
  app.use('/assets', express.static(join(folder, 'assets'), { immutable: true, maxAge: '365d', fallthrough: false }));
  app.use(express.static(folder, { index: false, maxAge: '1h' }));
  const page = join(folder, 'index.html');
  let cached = { at: 0, text: '' };
  app.get(/^\/(?!api\/).*/, (_request, response) => {
    if (!existsSync(page)) {
      response.status(503).type('text').send('The client is not built yet: npm run build');
      return;
    }
    const at = statSync(page).mtimeMs;
    if (at !== cached.at) cached = { at, text: readFileSync(page, 'utf8') };
    response
      .set('Cache-Control', 'no-store')
      .type('html')
      .send(cached.text.replaceAll(NONCE_MARK, String(response.locals['nonce'])));
  });
}
