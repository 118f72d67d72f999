import 'reflect-metadata';
import type { RequestListener, Server } from 'node:http';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { paths } from '@ustle/contract';
import { LARGEST_FILE_BYTES, LARGEST_PHOTO_BYTES } from '@ustle/core';
import { isTooDeep } from '@ustle/files';

import compression from 'compression';
import express, { type Request, type RequestHandler } from 'express';
import helmet from 'helmet';
import { AccessService } from './access/access.service.js';
import { littleFromOutside } from './access/gate.js';
import { inLink, isLoopback, listen, listeningFrom } from './access/listening.js';
import { documentApi } from './api-docs.js';
import { AppModule } from './app.module.js';
import { door, PHOTOS } from './door.js';
import { servePages } from './pages.js';
import { ProblemException, ProblemFilter } from './problem.js';
import { Store } from './store/store.service.js';
import { validation } from './validation.js';

const KEEP_ALIVE_MS = 65_000;

/** Everything the page needs comes from here: nothing is fetched from elsewhere. */
const policyWith = (scripts: readonly string[]): RequestHandler =>
  helmet({
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", ...scripts],
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
const policy = policyWith([]);
/** The worker that looks at pictures makes its library's calls as it starts; nothing else may. */
const VISION = /^\/assets\/vision\.worker-[\w-]+\.js$/;
const visionPolicy = policyWith(["'unsafe-eval'", "'wasm-unsafe-eval'"]);

/** What is nested without end would break whoever walks through it. */
const notTooDeep: RequestHandler = (request: Request, _response, next) => {
  next(
    isTooDeep(request.body) ? new ProblemException(400, { code: 'too-deep', field: '/', message: 'The body of the request is nested too deep.' }) : undefined,
  );
};

const LEAVE_MS = 1_000;

/** When it is told to end, streams that stay open are broken off: whoever listens comes back by themselves. */
function endWithin(servers: readonly Server[]): void {
  const end = (): void => {
    setTimeout(() => servers.forEach((s) => s.closeAllConnections()), LEAVE_MS).unref();
    for (const server of servers) {
      server.close();
      server.closeIdleConnections();
    }
  };
  process.once('SIGINT', end);
  process.once('SIGTERM', end);
}

async function start(): Promise<void> {
  const listening = listeningFrom(process.env);
  const app = await NestFactory.create<NestExpressApplication>(AppModule, { bodyParser: false, logger: ['error', 'warn'], abortOnError: false });
  app.use(((request, response, next) => (VISION.test(request.path) ? visionPolicy : policy)(request, response, next)) as RequestHandler);
  app.use(door(listening));
  app.use(littleFromOutside(app.get(AccessService)));
  // A stream of readings is told line by line, as they come.
  app.use(
    compression({
      filter: (request, response) => ![paths.caliper, paths.scale].some((stream) => stream === request.path) && compression.filter(request, response),
    }),
  );
  // A tree file is taken as text, so that its faults can be named; all other bodies are read as JSON.
  app.use(paths.importTree(), express.text({ type: () => true, limit: LARGEST_FILE_BYTES + 1024 }));
  app.use(PHOTOS, express.raw({ type: () => true, limit: LARGEST_PHOTO_BYTES + 1024 }));
  app.use(express.json({ limit: LARGEST_FILE_BYTES }));
  app.use(notTooDeep);
  app.useGlobalPipes(validation);
  app.useGlobalFilters(new ProblemFilter());
  app.enableShutdownHooks();
  documentApi(app);
  servePages(app);
  await app.init();
  const { port, servers } = await listen(app.getHttpServer() as Server, app.getHttpAdapter().getInstance() as RequestListener, listening);
  // A client that computes between two requests finds its connection still open.
  for (const server of servers) server.keepAliveTimeout = KEEP_ALIVE_MS;
  const address = `http://${isLoopback(listening.host) ? 'localhost' : inLink(listening.host)}:${port}`;
  app.get(Store).lock.tell(address);
  endWithin(servers);
  process.stdout.write(`Ustle is at ${address}\n`);
}

start().catch((error: unknown) => {
  process.stderr.write(`Ustle did not start: ${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
});
