/** The server around pages and endpoints: who is answered, headers, compression, files of the build. */
import { noteFault } from '../log';
import compression from 'compression';
import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import { isAddress, METHODS } from './address';
import type { SessionKind } from './access';
import { addGate, type GateOptions } from './gate';
import { refusal } from './origin';

/** Hashed files never change; a browser keeps them for a year. */
const HASHED = /^\/_astro\//;
const YEAR_MS = 365 * 24 * 3600 * 1000;

/** What files and answers may do; pages bring their own policy. A worker goes by that of its file. */
const FILES_POLICY = {
  defaultSrc: ["'none'"],
  scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
  connectSrc: ["'self'"],
  frameAncestors: ["'none'"],
};

type Step = (request: Request, response: Response, next: NextFunction) => void;

function refuse(response: Response, status: number, code: string, message: string): void {
  response.status(status).json({ errors: [{ path: '', code, message }] });
}

/** Refuses what does not come from this machine's own pages and programs. */
function onlyOurs(names: readonly string[]): Step {
  return (request, response, next) => {
    const { host, origin } = request.headers;
    const header = (name: string) => request.get(name) ?? undefined;
    const why = refusal(
      {
        host,
        origin,
        site: header('sec-fetch-site'),
        mode: header('sec-fetch-mode'),
        method: request.method,
      },
      names,
    );
    if (why) refuse(response, 403, 'not-ours', why);
    else next();
  };
}

/** Refuses methods that are none here, and addresses that are no addresses, before anything else reads them. */
function onlyAddresses(request: Request, response: Response, next: NextFunction): void {
  if (!METHODS.includes(request.method)) {
    response.set('allow', METHODS.join(', '));
    return refuse(response, 405, 'method', `Addresses here take ${METHODS.join(', ')} only.`);
  }
  if (isAddress(request.originalUrl)) return next();
  refuse(response, 400, 'address', 'This is no address. Look at how it is written.');
}

/** Style attributes are drawn by the pages themselves; Astro's policy knows only whole style sheets. */
function withStyleAttributes(request: Request, response: Response, next: NextFunction): void {
  const writeHead = response.writeHead.bind(response) as (...given: unknown[]) => Response;
  response.writeHead = ((...given: unknown[]) => {
    const headers = given.findLast((one) => typeof one === 'object' && one !== null) as
      Record<string, string | string[]> | undefined;
    const key = Object.keys(headers ?? {}).find((name) => name.toLowerCase() === 'content-security-policy');
    if (headers && key) {
      const policy = String(headers[key]).replace(/;\s*$/, '');
      if (policy.includes('script-src')) headers[key] = `${policy}; style-src-attr 'unsafe-inline'`;
    }
    return writeHead(...given);
  }) as typeof response.writeHead;
  next();
}

export interface FrontLocals {
  /** `bench` for a device that was let in by a code; `desk` for everybody else. */
  session: SessionKind;
}

export interface FrontOptions {
  /** Folder of the build's files for browsers. */
  clientFolder: string;
  /** Pages and endpoints; `locals` is what they are told of whoever asks. */
  pages: (request: Request, response: Response, next: undefined, locals: FrontLocals) => unknown;
  /** More names this machine goes by. */
  names: readonly string[];
  /** Who may come in. */
  gate: GateOptions;
}

/** The application's server, ready to listen. */
export function frontApp({ clientFolder, pages, names, gate }: FrontOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: { directives: FILES_POLICY, useDefaults: false },
      xFrameOptions: { action: 'deny' },
      strictTransportSecurity: false,
      crossOriginEmbedderPolicy: false,
    }),
  );
  app.use(onlyAddresses);
  app.use(onlyOurs(names));
  addGate(app, gate);
  app.use(compression());
  app.use(
    express.static(clientFolder, {
      index: false,
      redirect: false,
      dotfiles: 'ignore',
      setHeaders: (response, path) => {
        const isHashed = HASHED.test(path.slice(clientFolder.length).replaceAll('\\', '/'));
        response.setHeader(
          'cache-control',
          isHashed ? `public, max-age=${YEAR_MS / 1000}, immutable` : 'no-cache',
        );
      },
    }),
  );
  app.use(withStyleAttributes);
  // A file of the build that is not there is nothing else: these addresses are open to everybody.
  app.use('/_astro', (_request, response) =>
    refuse(response, 404, 'unknown-address', 'There is no such file.'),
  );
  // Without a next of ours the pages answer what leads nowhere with their own words.
  app.use((request, response) =>
    pages(request, response, undefined, { session: response.locals.session === 'bench' ? 'bench' : 'desk' }),
  );
  app.use((error: unknown, _request: Request, response: Response, _next: NextFunction) => {
    const status = (error as { status?: unknown }).status;
    if (typeof status === 'number' && status >= 400 && status < 500 && !response.headersSent)
      return refuse(
        response,
        status,
        'body',
        'This body cannot be read. Look at its size and how it is written.',
      );
    noteFault('front', error);
    if (!response.headersSent)
      refuse(response, 500, 'internal', 'Something went wrong here. Nothing was changed; try again.');
  });
  return app;
}
