import { createHash } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import type { Request, Response } from 'express';

interface Pack {
  value: unknown;
  text: Buffer;
  gzip: Buffer;
  tag: string;
}

function pack(value: unknown): Pack {
  const text = Buffer.from(JSON.stringify(value));
  return { value, text, gzip: gzipSync(text), tag: `"${createHash('sha1').update(text).digest('base64url')}"` };
}

/** An answer that is asked for often and changes seldom: written and compressed once, for as long as it is the very same value. */
export class Packed {
  private last: Pack | null = null;

  send(request: Request, response: Response, value: unknown): void {
    const last: Pack = this.last && this.last.value === value ? this.last : pack(value);
    this.last = last;
    const { tag, text, gzip } = last;
    response.setHeader('ETag', tag);
    response.setHeader('Cache-Control', 'no-cache');
    response.setHeader('Vary', 'Accept-Encoding');
    response.type('application/json');
    if (request.headers['if-none-match'] === tag) {
      response.status(304).end();
      return;
    }
    if (request.acceptsEncodings('gzip')) response.setHeader('Content-Encoding', 'gzip').end(gzip);
    else response.end(text);
  }
}
