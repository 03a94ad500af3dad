import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { Router, type Response } from 'express';
import expressStaticGzip from 'express-static-gzip';

const ONE_YEAR = 'public, max-age=31536000, immutable';

/** The word by which this answer's own styles are known, made once an answer. */
export function styleNonceOf(res: Response): string {
  const locals = res.locals as { styleNonce?: string };
  return (locals.styleNonce ??= randomBytes(NONCE_BYTES).toString('base64url'));
}
const NONCE_BYTES = 16;

/**
 * The built web app: files compressed at build time, named by their content and kept for ever; the page itself asks
 * again each time. Every other path is a page of the app.
 */
export function serveWeb(webRoot: string): Router {
  const router = Router();
  const page = readFileSync(path.join(webRoot, 'index.html'), 'utf8');
  router.use(
    expressStaticGzip(webRoot, {
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      index: false,
      serveStatic: {
        setHeaders: (res, file) => {
          res.setHeader('Cache-Control', /[\\/]assets[\\/]/.test(file) ? ONE_YEAR : 'no-cache');
        },
      },
    }),
  );
  router.get('/{*page}', (req, res, next) => {
    if (req.path.startsWith('/api/') || path.extname(req.path) !== '') {
      next();
      return;
    }
    res.setHeader('Cache-Control', 'no-cache');
    // The component library writes its sheets of styles into the page: by this word they are known as ours.
    res.type('html').send(page.replace('<head>', `<head><meta name="style-nonce" content="${styleNonceOf(res)}">`));
  });
  return router;
}
