import path from 'node:path';
import { Router } from 'express';
import expressStaticGzip from 'express-static-gzip';

const ONE_YEAR = 'public, max-age=31536000, immutable';

/**
 * The built web app: files compressed at build time, named by their content and kept for ever; the page itself asks
 * again each time. Every other path is a page of the app.
 */
export function serveWeb(webRoot: string): Router {
  const router = Router();
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
    res.sendFile(path.join(webRoot, 'index.html'));
  });
  return router;
}
