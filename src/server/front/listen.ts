/** The door that both plain and encrypted connections come to: encrypted ones are answered, plain ones are led there. */
import { createServer as createPlain, type RequestListener, type ServerOptions } from 'node:http';
import { createServer as createSecure, type Server as SecureServer } from 'node:https';
import { createServer as createDoor, type Server, type Socket } from 'node:net';
import { isAddress } from './address';
import { isNameOfOurs } from './origin';
import type { Tls } from './tls';

/** What an encrypted connection begins with. */
const HANDSHAKE = 0x16;
export const AUTHORITY_PATH = '/authority.crt';

/** Leads to the encrypted address, and hands out the certificate by which a device comes to trust it; nothing else. */
function leadThere(tls: Tls, names: readonly string[]): RequestListener {
  return ({ method, url = '', headers: { host = '' } }, response) => {
    const isRead = method === 'GET' || method === 'HEAD';
    if (!isRead || !isAddress(url) || !isNameOfOurs(host, names)) {
      const message = 'This house is reached over HTTPS alone.';
      response.writeHead(isRead ? 400 : 403, { 'content-type': 'application/json', connection: 'close' });
      response.end(JSON.stringify({ errors: [{ path: '', code: 'https-only', message }] }));
    } else if (url === AUTHORITY_PATH && tls.authority) {
      response.writeHead(200, { 'content-type': 'application/x-x509-ca-cert', 'cache-control': 'no-store' });
      response.end(tls.authority);
    } else {
      response.writeHead(308, { location: `https://${host}${url}`, connection: 'close' });
      response.end();
    }
  };
}

export interface SecureHouse {
  server: Server;
  /** Goes on with another certificate; connections that are open stay. */
  renew: (tls: Tls) => void;
}

/** A server whose port takes both. `app` answers what is encrypted. */
export function secureHouse(
  app: RequestListener,
  first: Tls,
  names: readonly string[],
  options: ServerOptions,
): SecureHouse {
  let tls = first;
  const secure: SecureServer = createSecure({ ...options, key: tls.key, cert: tls.cert }, app);
  const plain = createPlain(options, (request, response) => leadThere(tls, names)(request, response));
  const waitMs = options.headersTimeout ?? 0;
  const server = createDoor((socket: Socket) => {
    // What says nothing is not kept.
    socket.setTimeout(waitMs, () => socket.destroy());
    socket.on('error', () => socket.destroy());
    socket.once('readable', () => {
      const begin = socket.read() as Buffer | null;
      if (!begin) return;
      socket.setTimeout(0);
      socket.unshift(begin);
      (begin[0] === HANDSHAKE ? secure : plain).emit('connection', socket);
    });
  });
  server.on('close', () => {
    secure.close();
    plain.close();
  });
  return {
    server,
    renew: (next) => {
      tls = next;
      secure.setSecureContext({ key: next.key, cert: next.cert });
    },
  };
}
