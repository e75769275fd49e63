import { serve, type ServerType } from '@hono/node-server';
import { STATUS_CODES, type ServerResponse } from 'node:http';
import type { Socket } from 'node:net';

/** A request's headers may be so long, in bytes. */
const LONGEST_HEADERS = 16 * 1024;
/** A request must have come whole within this time, in milliseconds. */
const REQUEST_TIMEOUT_MS = 60_000;

/** What is said of requests that end before anybody could answer them as usual. */
const RAW: Readonly<Record<string, readonly [status: number, detail: string]>> = {
  HPE_HEADER_OVERFLOW: [431, `The headers of a request can have ${LONGEST_HEADERS / 1024} kB at most.`],
  ERR_HTTP_REQUEST_TIMEOUT: [408, 'The request did not come to its end in time.'],
};

/** Serves an application on one port; requests that cannot be read get problem details as well (RFC 9457). */
export function listen(fetch: Parameters<typeof serve>[0]['fetch'], hostname: string, port: number): Promise<ServerType> {
  return new Promise((resolve, reject) => {
    const server = serve(
      { fetch, hostname, port, serverOptions: { maxHeaderSize: LONGEST_HEADERS, requestTimeout: REQUEST_TIMEOUT_MS } },
      () => resolve(server),
    );
    server.once('error', reject);
    (server as { on(event: string, listener: (error: Error, socket: Socket) => void): unknown }).on('clientError', refuse);
  });
}

function refuse(error: NodeJS.ErrnoException, socket: Socket): void {
  const answered = (socket as Socket & { _httpMessage?: ServerResponse })._httpMessage?.headersSent === true;
  if (error.code === 'ECONNRESET' || !socket.writable || answered) {
    socket.destroy();
    return;
  }
  const [status, detail] = RAW[error.code ?? ''] ?? [400, 'This is no request that can be read.'];
  const body = JSON.stringify({ type: 'about:blank', title: STATUS_CODES[status], status, detail });
  socket.end(
    [
      `HTTP/1.1 ${status} ${STATUS_CODES[status]}`,
      'Content-Type: application/problem+json',
      `Content-Length: ${Buffer.byteLength(body)}`,
      "Content-Security-Policy: default-src 'none'; frame-ancestors 'none'",
      'X-Content-Type-Options: nosniff',
      'X-Frame-Options: DENY',
      'Referrer-Policy: no-referrer',
      'Cache-Control: no-store',
      'Connection: close',
      '',
      body,
    ].join('\r\n'),
  );
}
