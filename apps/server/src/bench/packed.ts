import { createHash } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import type { Request, Response } from 'express';

/** An answer that is asked for often and changes seldom: written and compressed once, for as long as it says the same. */
export class Packed {
  private last: { value: unknown; text: Buffer; gzip: Buffer; tag: string } | null = null;

  send(request: Request, response: Response, value: unknown): void {
    const text = JSON.stringify(value);
    const tag = `"${createHash('sha1').update(text).digest('base64url')}"`;
    if (this.last?.tag !== tag) this.last = { value, text: Buffer.from(text), gzip: gzipSync(text), tag };
    response.setHeader('ETag', tag);
    response.setHeader('Cache-Control', 'no-cache');
    response.setHeader('Vary', 'Accept-Encoding');
    response.type('application/json');
    if (request.headers['if-none-match'] === tag) {
      response.status(304).end();
      return;
    }
    if (request.acceptsEncodings('gzip')) response.setHeader('Content-Encoding', 'gzip').end(this.last.gzip);
    else response.end(this.last.text);
  }
}
