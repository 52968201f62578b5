/** The gate before pages and endpoints where other machines can reach them: signing in and out, devices of the bench. */
import express, { type Express, type NextFunction, type Request, type Response, type Router } from 'express';
import { parse as parseCookie } from 'cookie';
import { qrSvg } from '../labels/qr';
import { BENCH_ONLY, isOfBench } from './bench';
import { AUTHORITY_PATH } from './listen';
import { isLoopback } from './origin';
import type { Tls } from './tls';
import { LONGEST_PASSPHRASE, SHORTEST_PASSPHRASE, Slowing, type Access, type Session } from './access';

const COOKIE = 'proportia';
const COOKIE_DAYS = 90;
const MS_PER_DAY = 24 * 3_600_000;
/** Build files hold nothing of the maker's; the page for signing in needs its style. */
const OPEN =
  /^\/(?:_astro\/|sign-in$|bench-in$|sign-in\.css$|sw\.js$|mark\.svg$|authority\.crt$|api\/v1\/health$)/;
/** The calendar's address is its own key: a calendar on another machine cannot sign in. */
const OWN_KEY = /^\/api\/v1\/rack\/calendar\/[\w-]+(?:\.ics)?$/;

export interface GateOptions {
  access: Access;
  /** Whether a sign-in is asked for; on this machine alone it is not. */
  isShut: boolean;
  /** The address that other machines know this one by, with its port; left out where there is none. */
  reach?: string;
  /** How connections are encrypted; null or left out where they are not. */
  tls?: Tls | null;
}

function secretIn({ headers }: Request): string | null {
  return parseCookie(headers.cookie ?? '')[COOKIE] ?? null;
}

function setCookie(request: Request, response: Response, secret: string): void {
  response.cookie(COOKIE, secret, {
    httpOnly: true,
    sameSite: 'strict',
    path: '/',
    secure: request.secure,
    maxAge: COOKIE_DAYS * MS_PER_DAY,
  });
}

const escaped = (text: string) => text.replace(/[&<>"']/g, (letter) => `&#${letter.charCodeAt(0)};`);

/** A page of the gate's own: it needs no script and nothing of the application. */
function page(title: string, body: string): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<link rel="icon" href="/mark.svg" type="image/svg+xml"><link rel="stylesheet" href="/sign-in.css"><title>${escaped(title)} · Proportia</title></head>
<body><main><p class="name">Proportia</p><h1>${escaped(title)}</h1>${body}</main></body></html>`;
}

function show(response: Response, status: number, html: string): void {
  response
    .status(status)
    .type('html')
    .set('cache-control', 'no-store')
    // Without any referrer a browser sends its forms from the origin "null", which is nobody's.
    .set('referrer-policy', 'same-origin')
    .set(
      'content-security-policy',
      "default-src 'none'; style-src 'self'; img-src 'self'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'",
    )
    .send(html);
}

const said = (message: string) => (message ? `<p role="alert">${escaped(message)}</p>` : '');

const signInPage = (message: string) =>
  page(
    'Sign in',
    `${said(message)}<form method="post" action="/sign-in"><label>Passphrase<input type="password" name="passphrase"
     autocomplete="current-password" required autofocus maxlength="${LONGEST_PASSPHRASE}"></label><button>Sign in</button></form>`,
  );

const benchPage = (code: string, message: string) =>
  page(
    'A device of the bench',
    `${said(message)}<p>With the code that the desk shows, this device can pour and weigh, and nothing else.</p>
     <form method="post" action="/bench-in"><label>Code<input name="code" value="${escaped(code)}" autocomplete="off" required maxlength="20"></label>
     <button>Let this device in</button></form>`,
  );

const refuse = (response: Response, status: number, code: string, message: string) =>
  void response.status(status).json({ errors: [{ path: '', code, message }] });

/** What a session may not open, in words; null where it may. */
function beyond({ kind }: Session, { path, method }: Request): string | null {
  return kind === 'desk' || isOfBench(method, path) ? null : BENCH_ONLY;
}

const isRead = ({ method }: Request) => method === 'GET' || method === 'HEAD';

/** Signing in, by passphrase or by a code of the desk, slowed down after failures. */
function signingIn({ access }: GateOptions): Router {
  const router = express.Router();
  const slowing = new Slowing();
  const fields = express.urlencoded({ extended: false, limit: '4kb', parameterLimit: 10 });
  const asking =
    (
      form: (message: string) => string,
      check: (value: string) => Promise<boolean> | boolean,
      kind: 'desk' | 'bench',
      field: string,
    ) =>
    async (request: Request, response: Response) => {
      const from = request.socket.remoteAddress ?? '';
      // Counted before it is looked at: of tries sent side by side no more are looked at than of those one by one.
      const waitMs = await slowing.count(from);
      if (waitMs > 0) {
        const seconds = Math.ceil(waitMs / 1000);
        response.set('retry-after', String(seconds));
        return show(response, 429, form(`Too many tries. Wait ${seconds} seconds and try again.`));
      }
      const value = (request.body as Record<string, unknown> | undefined)?.[field];
      if (typeof value !== 'string' || !(await check(value)))
        return show(response, 401, form('That is not it.'));
      await slowing.succeeded(from);
      setCookie(request, response, access.begin(kind, request.get('user-agent') ?? ''));
      response.redirect(303, kind === 'bench' ? '/pour' : '/');
    };
  const codeIn = ({ query }: Request) => (typeof query.code === 'string' ? query.code.slice(0, 20) : '');
  router.get('/sign-in', (_request, response) => show(response, 200, signInPage('')));
  router.post(
    '/sign-in',
    fields,
    asking(signInPage, (text) => access.isPassphrase(text), 'desk', 'passphrase'),
  );
  router.get('/bench-in', (request, response) => show(response, 200, benchPage(codeIn(request), '')));
  router.post(
    '/bench-in',
    fields,
    asking(
      (message) => benchPage('', message),
      (code) => access.useCode(code),
      'bench',
      'code',
    ),
  );
  return router;
}

/** A desk on this machine itself speaks of a name that leads another machine to itself. */
function hostFor({ headers: { host = '' } }: Request, reach: string | undefined): string {
  const isHere = isLoopback(host.replace(/:\d+$/, ''));
  return isHere && reach ? reach : host;
}

/** By what a device comes to trust this house: the fingerprint, and where it takes the certificate from. */
function trustOf({ fingerprint }: Tls, request: Request, reach: string | undefined) {
  const url = `http://${hostFor(request, reach)}${AUTHORITY_PATH}`;
  return { fingerprint, url, svg: qrSvg(url) };
}

/** What the desk does about who is in: the list, shutting out, a code, another passphrase. */
function keepingDoors({ access, isShut, reach, tls }: GateOptions): Router {
  const router = express.Router();
  const json = express.json({ limit: '4kb' });
  router.get('/', (request, response) => {
    const own = access.sessionOf(secretIn(request));
    const sessions =
      own?.kind === 'bench' ? [] : access.sessions().map((one) => ({ ...one, isOwn: one.id === own?.id }));
    const trust = tls?.authority && own?.kind !== 'bench' ? trustOf(tls, request, reach) : null;
    response
      .set('cache-control', 'no-store')
      .json({ isShut, hasPassphrase: access.hasPassphrase, sessions, trust });
  });
  router.post('/bench', (request, response) => {
    const code = access.makeCode();
    const url = `${request.protocol}://${hostFor(request, reach)}/bench-in?code=${code}`;
    response.status(201).json({ code, url, svg: qrSvg(url) });
  });
  router.delete('/:id', (request, response) => {
    if (access.end(request.params.id)) response.json({ ended: request.params.id });
    else refuse(response, 404, 'unknown-session', 'There is no such device.');
  });
  router.post('/end-all', (_request, response) => {
    access.endAll();
    response.json({ ended: 'all' });
  });
  router.put('/passphrase', json, async (request: Request, response: Response) => {
    const { old, passphrase } = (request.body ?? {}) as { old?: unknown; passphrase?: unknown };
    if (
      typeof passphrase !== 'string' ||
      passphrase.length < SHORTEST_PASSPHRASE ||
      passphrase.length > LONGEST_PASSPHRASE
    )
      return refuse(
        response,
        422,
        'passphrase',
        `A passphrase has ${SHORTEST_PASSPHRASE} to ${LONGEST_PASSPHRASE} letters.`,
      );
    if (access.hasPassphrase && (typeof old !== 'string' || !(await access.isPassphrase(old))))
      return refuse(response, 403, 'passphrase', 'The passphrase that counts now is another one.');
    await access.setPassphrase(passphrase);
    if (isShut) setCookie(request, response, access.begin('desk', request.get('user-agent') ?? ''));
    response.json({ hasPassphrase: true });
  });
  return router;
}

/** Puts the gate before everything that comes after it. */
export function addGate(app: Express, options: GateOptions): void {
  const { access, isShut } = options;
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (!isShut || OPEN.test(request.path)) return next();
    if (isRead(request) && OWN_KEY.test(request.path)) return next();
    const session = access.sessionOf(secretIn(request));
    const isDoor = request.path.startsWith('/api/');
    if (!session) {
      if (isDoor)
        return refuse(
          response,
          401,
          'sign-in',
          'Sign in first: this came without a session that still holds.',
        );
      return response.redirect(303, '/sign-in');
    }
    const why = beyond(session, request);
    if (why === null) {
      response.locals.session = session.kind;
      return next();
    }
    if (isDoor) refuse(response, 403, 'bench-only', why);
    else response.redirect(303, '/pour');
  });
  app.get(AUTHORITY_PATH, (_request, response, next) =>
    options.tls?.authority
      ? response
          .type('application/x-x509-ca-cert')
          .set('cache-control', 'no-store')
          .send(options.tls.authority)
      : next(),
  );
  app.post('/sign-out', (request, response) => {
    const session = access.sessionOf(secretIn(request));
    if (session) access.end(session.id);
    response
      .clearCookie(COOKIE, { path: '/', secure: request.secure })
      .redirect(303, isShut ? '/sign-in' : '/');
  });
  app.use(signingIn(options));
  app.use('/api/v1/access', keepingDoors(options));
}
