import 'reflect-metadata';
import { existsSync } from 'node:fs';
import type { Server } from 'node:http';
import { join, resolve } from 'node:path';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { paths } from '@ustle/contract';
import { LARGEST_FILE_BYTES } from '@ustle/files';
import express, { type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import { documentApi } from './api-docs.js';
import { AppModule } from './app.module.js';
import { ProblemFilter } from './problem.js';
import { validation } from './validation.js';

const TRIES = 20;
const KEEP_ALIVE_MS = 65_000;

/** Everything the page needs comes from here: nothing is fetched from elsewhere. */
const policy = helmet({
  contentSecurityPolicy: {
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'"],
      workerSrc: ["'self'", 'blob:'],
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      fontSrc: ["'self'", 'data:'],
      connectSrc: ["'self'"],
      upgradeInsecureRequests: null,
    },
  },
  strictTransportSecurity: false,
});

/** The built interface; any address of it that is no file is the application itself. */
function servePages(app: NestExpressApplication): void {
  const pages = resolve(import.meta.dirname, '../../web/dist');
  if (!existsSync(pages)) return;
  app.use(express.static(pages, { index: false, maxAge: '1h' }));
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (request.method === 'GET' && !request.path.startsWith('/api/')) response.sendFile(join(pages, 'index.html'));
    else next();
  });
}

/** Listens on a port; fails where it is taken. */
const bind = (server: Server, port: number, host: string): Promise<void> =>
  new Promise((done, fail) => {
    server.once('error', fail);
    server.listen(port, host, () => {
      server.off('error', fail);
      done();
    });
  });

async function listen(app: NestExpressApplication): Promise<number> {
  const first = Number(process.env.USTLE_PORT ?? 4517);
  const host = process.env.USTLE_HOST ?? '127.0.0.1';
  for (let port = first; port < first + TRIES; port++) {
    try {
      await bind(app.getHttpServer() as Server, port, host);
      return port;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error;
      process.stdout.write(`Port ${port} is taken; trying ${port + 1}.\n`);
    }
  }
  throw new Error(`No free port from ${first} to ${first + TRIES - 1}. Set USTLE_PORT to another.`);
}

async function start(): Promise<void> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule, { bodyParser: false, logger: ['error', 'warn'] });
  app.use(policy);
  // Files are taken as text, so that their faults can be named; all other bodies are JSON.
  const text = express.text({ type: () => true, limit: LARGEST_FILE_BYTES + 1024 });
  app.use(paths.importTree, text);
  app.use(/^\/api\/trees\/[^/]+\/measured\/(branches|cylinders)/, text);
  app.use(express.json({ limit: LARGEST_FILE_BYTES }));
  app.useGlobalPipes(validation);
  app.useGlobalFilters(new ProblemFilter());
  app.enableShutdownHooks();
  documentApi(app);
  servePages(app);
  // A client that computes between two requests finds its connection still open.
  (app.getHttpServer() as Server).keepAliveTimeout = KEEP_ALIVE_MS;
  await app.init();
  const port = await listen(app);
  process.stdout.write(`Ustle is at http://${process.env.USTLE_HOST ?? 'localhost'}:${port}\n`);
}

start().catch((error: unknown) => {
  process.stderr.write(`Ustle did not start: ${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
});
