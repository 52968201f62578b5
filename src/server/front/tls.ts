/**
 * Certificates of the house's own: an authority made once and kept in the data folder, and a certificate for the names and
 * addresses of this machine, made anew where they change or its end is near. Or those of whoever has one.
 */
import { X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { generate } from 'selfsigned';

const FOLDER = 'tls';
const DAY_MS = 24 * 3_600_000;
const AUTHORITY_DAYS = 3650;
/** Browsers take none that is good for longer than this. */
const OWN_DAYS = 397;
const RENEWED_BEFORE_DAYS = 30;

export interface Tls {
  key: string;
  cert: string;
  /** The authority's certificate, by which a device comes to trust this house; null where the certificate is not ours. */
  authority: string | null;
  /** SHA-256 of the authority's certificate, or of the one given, in pairs of digits. */
  fingerprint: string;
}

interface Pair {
  key: string;
  cert: string;
}

function put(folder: string, name: string, text: string): void {
  const file = join(folder, name);
  writeFileSync(`${file}.part`, text, { mode: 0o600 });
  renameSync(`${file}.part`, file);
}

function read(folder: string, name: string): Pair | null {
  const [key, cert] = [join(folder, `${name}.key`), join(folder, `${name}.pem`)];
  if (!existsSync(key) || !existsSync(cert)) return null;
  return { key: readFileSync(key, 'utf8'), cert: readFileSync(cert, 'utf8') };
}

const EC = { algorithm: 'sha256', keyType: 'ec', curve: 'P-256' } as const;
const days = (now: number, count: number) => ({
  // A device whose clock lags a little trusts it too.
  notBeforeDate: new Date(now - DAY_MS),
  notAfterDate: new Date(now + count * DAY_MS),
});

async function makeAuthority(now: number): Promise<Pair> {
  const name = [{ name: 'commonName', value: `Proportia on ${hostname()}` }];
  const made = await generate(name, {
    ...EC,
    ...days(now, AUTHORITY_DAYS),
    extensions: [
      { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
      { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
    ],
  });
  return { key: made.private, cert: made.cert };
}

async function makeOwn(authority: Pair, names: readonly string[], now: number): Promise<Pair> {
  const bare = names.map((name) => name.replace(/^\[(.*)\]$/, '$1'));
  const made = await generate([{ name: 'commonName', value: bare[0] ?? 'localhost' }], {
    ...EC,
    ...days(now, OWN_DAYS),
    ca: authority,
    extensions: [
      { name: 'basicConstraints', cA: false, critical: true },
      { name: 'keyUsage', digitalSignature: true, critical: true },
      { name: 'extKeyUsage', serverAuth: true },
      {
        name: 'subjectAltName',
        altNames: bare.map((name) => (isIP(name) ? { type: 7, ip: name } : { type: 2, value: name })),
      },
    ],
  });
  return { key: made.private, cert: made.cert };
}

/** Whether a certificate is the authority's, good for long enough, and names every name. */
function stillGood({ cert }: Pair, authority: Pair, names: readonly string[], now: number): boolean {
  try {
    const own = new X509Certificate(cert);
    const isNamed = (name: string) => {
      const bare = name.replace(/^\[(.*)\]$/, '$1');
      return isIP(bare) ? own.checkIP(bare) !== undefined : own.checkHost(bare) !== undefined;
    };
    return (
      own.verify(new X509Certificate(authority.cert).publicKey) &&
      Date.parse(own.validTo) - now > RENEWED_BEFORE_DAYS * DAY_MS &&
      Date.parse(own.validFrom) <= now &&
      names.every(isNamed)
    );
  } catch {
    return false;
  }
}

/** Over soon, or made while the clock was ahead: no device trusts what begins some day to come. */
function isOver({ cert }: Pair, now: number): boolean {
  const { validFrom, validTo } = new X509Certificate(cert);
  return Date.parse(validFrom) > now || Date.parse(validTo) - now < RENEWED_BEFORE_DAYS * DAY_MS;
}

/**
 * The certificate of this house for its names and addresses; what is missing or nearly over is made anew, the authority
 * only where it is over itself, so that devices go on trusting it.
 */
export async function ownTls(folder: string, names: readonly string[], now = Date.now()): Promise<Tls> {
  const at = join(folder, FOLDER);
  mkdirSync(at, { recursive: true, mode: 0o700 });
  let authority = read(at, 'authority');
  if (!authority || isOver(authority, now)) {
    authority = await makeAuthority(now);
    put(at, 'authority.key', authority.key);
    put(at, 'authority.pem', authority.cert);
  }
  let own = read(at, 'own');
  if (!own || !stillGood(own, authority, names, now)) {
    own = await makeOwn(authority, names, now);
    put(at, 'own.key', own.key);
    put(at, 'own.pem', own.cert);
  }
  return {
    key: own.key,
    cert: `${own.cert.trim()}\n${authority.cert}`,
    authority: authority.cert,
    fingerprint: new X509Certificate(authority.cert).fingerprint256,
  };
}

/** A certificate of the maker's own from two files. Throws in words where they cannot be read. */
export function givenTls(certFile: string, keyFile: string): Tls {
  const text = (file: string, name: string) => {
    try {
      return readFileSync(file, 'utf8');
    } catch {
      throw new Error(`${name} is ${file}, which cannot be read.`);
    }
  };
  const [cert, key] = [text(certFile, 'PROPORTIA_CERT'), text(keyFile, 'PROPORTIA_KEY')];
  try {
    return { cert, key, authority: null, fingerprint: new X509Certificate(cert).fingerprint256 };
  } catch {
    throw new Error(`PROPORTIA_CERT is ${certFile}, which is no certificate in PEM.`);
  }
}
