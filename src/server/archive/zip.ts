/** Reading a ZIP as streams: what is really inflated is counted, whatever the file says of itself. */
import { createHash } from 'node:crypto';
import type { Readable } from 'node:stream';
import { open as openZip, type Entry, type ZipFile } from 'yauzl';

/** Why an archive is not taken, in words. */
export class Refusal extends Error {}

/** Most files of an archive. */
export const MOST_FILES = 50_000;
const SAFE = /^(?:[\w-]+\/)?[\w.-]+$/;
const BROKEN = 'This is no ZIP file, or it was cut off on the way.';

/** A ZIP whose table of contents was read. */
export interface OpenZip {
  paths: ReadonlySet<string>;
  /** Every byte of one file, in parts; its sum is known once it was read to the end. */
  read: (path: string) => AsyncGenerator<Buffer, void>;
  /** One file whole, up to so many bytes. */
  whole: (path: string, most: number) => Promise<Buffer>;
  /** Sums (SHA-256) of what was read to its end. */
  sums: ReadonlyMap<string, string>;
  /** Bytes as inflated, by what the table of contents says. */
  bytes: number;
  close: () => void;
}

const OPTIONS = { lazyEntries: true, autoClose: false, strictFileNames: false } as const;

function opened(file: string): Promise<ZipFile> {
  return new Promise((resolve, reject) =>
    openZip(file, OPTIONS, (error, zip) => (error ? reject(new Refusal(BROKEN)) : resolve(zip))),
  );
}

function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  if (zip.entryCount > MOST_FILES)
    return Promise.reject(new Refusal(`It holds ${zip.entryCount} files, more than are taken at once.`));
  const entries = new Map<string, Entry>();
  return new Promise((resolve, reject) => {
    zip.on('entry', (entry: Entry) => {
      const name = entry.fileName;
      if (!SAFE.test(name) || name.includes('..'))
        return reject(new Refusal(`It holds a file by the name ${name.slice(0, 80)}.`));
      if (entries.has(name)) return reject(new Refusal(`It holds ${name} twice.`));
      entries.set(name, entry);
      zip.readEntry();
    });
    zip.on('end', () => resolve(entries));
    zip.on('error', (error: Error) =>
      reject(
        new Refusal(
          /invalid|illegal|absolute|relative/i.test(error.message) &&
            /file ?name|path|characters/i.test(error.message)
            ? `It holds a file by the name that leads elsewhere.`
            : BROKEN,
        ),
      ),
    );
    zip.readEntry();
  });
}

/** Opens a ZIP on disk; throws a Refusal in words. */
export async function readZip(file: string): Promise<OpenZip> {
  const zip = await opened(file);
  try {
    const entries = await entriesOf(zip);
    const sums = new Map<string, string>();
    const stream = (entry: Entry) =>
      new Promise<Readable>((resolve, reject) =>
        zip.openReadStream(entry, (error, made) => (error ? reject(new Refusal(BROKEN)) : resolve(made))),
      );
    async function* read(path: string) {
      const entry = entries.get(path);
      if (!entry) throw new Refusal(`${path} is missing.`);
      const hash = createHash('sha256');
      try {
        for await (const part of await stream(entry)) {
          hash.update(part as Buffer);
          yield part as Buffer;
        }
      } catch (error) {
        if (error instanceof Refusal) throw error;
        // More bytes than the file says, fewer, or none that can be inflated.
        throw new Refusal(`${path} does not hold what it says. ${BROKEN}`);
      }
      sums.set(path, hash.digest('hex'));
    }
    async function whole(path: string, most: number) {
      const parts: Buffer[] = [];
      let bytes = 0;
      for await (const part of read(path)) {
        bytes += part.byteLength;
        if (bytes > most) throw new Refusal(`${path} is larger than is taken at once.`);
        parts.push(part);
      }
      return Buffer.concat(parts);
    }
    const bytes = [...entries.values()].reduce((sum, { uncompressedSize }) => sum + uncompressedSize, 0);
    return { paths: new Set(entries.keys()), read, whole, sums, bytes, close: () => zip.close() };
  } catch (error) {
    zip.close();
    throw error;
  }
}
