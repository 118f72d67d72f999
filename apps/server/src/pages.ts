import { existsSync } from 'node:fs';
import { join, resolve, sep } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { NextFunction, Request, Response } from 'express';
import staticGzip from 'express-static-gzip';

/** The built interface; any address of it that is no file is the application itself. Files named after their content never change. */
export function servePages(app: NestExpressApplication): void {
  const pages = resolve(import.meta.dirname, '../../web/dist');
  if (!existsSync(pages)) return;
  const assets = join(pages, 'assets') + sep;
  app.use(
    staticGzip(pages, {
      index: false,
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: {
        setHeaders: (response, file) => void response.setHeader('Cache-Control', file.startsWith(assets) ? 'public, max-age=31536000, immutable' : 'no-cache'),
      },
    }),
  );
  app.use((request: Request, response: Response, next: NextFunction) => {
    const asked = request.method === 'GET' || request.method === 'HEAD';
    if (!asked || request.path.startsWith('/api/')) return next();
    response.setHeader('Cache-Control', 'no-cache');
    return response.sendFile(join(pages, 'index.html'));
  });
}
