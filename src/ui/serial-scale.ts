/**
 * A scale plugged into this device, by Web Serial where the browser has it: asked for once, its setting found by
 * listening, opened again by itself at the next visit. One scale serves every weighing of the page.
 */
import { useSyncExternalStore } from 'react';
import type { Reading } from '../core/weighing/follow';
import { readScaleLine } from '../core/weighing/lines';
import { findForm, formWords, LineReader, type Recording, type SerialForm } from '../core/weighing/serial';

/** What is used of a serial port. */
export interface Port {
  open: (form: SerialForm) => Promise<void>;
  close: () => Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
}

interface Serial extends EventTarget {
  requestPort: () => Promise<Port>;
  getPorts: () => Promise<Port[]>;
}

const serial = (): Serial | null =>
  typeof navigator !== 'undefined' && 'serial' in navigator ? (navigator.serial as Serial) : null;

/** Whether this browser can speak to a scale at all. */
export const hasSerial = (): boolean => serial() !== null;

export interface SerialState {
  /** `none`: the scale of the house is heard. `looking`: settings are tried. */
  is: 'none' | 'looking' | 'on' | 'lost';
  words: string;
}

const NONE: SerialState = { is: 'none', words: '' };
const FORM_KEY = 'proportia.serial-form';

let state: SerialState = NONE;
const watchers = new Set<() => void>();
const hearers = new Set<(reading: Reading) => void>();
/** The port that is open, and how reading it is ended. */
let open: { port: Port; end: () => Promise<void> } | null = null;

function tell(next: SerialState): void {
  state = next;
  for (const watch of watchers) watch();
}

function keptForm(): SerialForm | null {
  try {
    return JSON.parse(localStorage.getItem(FORM_KEY) ?? 'null') as SerialForm | null;
  } catch {
    return null;
  }
}

/** Reads a port until it is ended or goes; answers how to end it. */
function reading(port: Port, take: (bytes: Uint8Array) => void, gone: () => void): () => Promise<void> {
  const reader = port.readable!.getReader();
  let isEnded = false;
  const run = async () => {
    try {
      for (;;) {
        const { value, done } = await reader.read();
        if (done) break;
        take(value);
      }
    } catch {
      // Pulled out: told below.
    }
    reader.releaseLock();
    if (!isEnded) gone();
  };
  const ran = run();
  return async () => {
    isEnded = true;
    await reader.cancel().catch(() => undefined);
    await ran;
    await port.close().catch(() => undefined);
  };
}

/** Opens a port in a setting for a while; what it sent. A setting that it does not take is silent. */
async function heard(port: Port, form: SerialForm, forMs: number): Promise<Uint8Array[]> {
  const pieces: Uint8Array[] = [];
  try {
    await port.open(form);
  } catch {
    return [];
  }
  const end = reading(
    port,
    (bytes) => pieces.push(bytes),
    () => undefined,
  );
  await new Promise((resolve) => setTimeout(resolve, forMs));
  await end();
  return pieces;
}

/** Follows a port in its setting: each line it sends is a reading of its own moment. */
async function follow(port: Port, form: SerialForm): Promise<void> {
  await port.open(form);
  const lines = new LineReader();
  let lastMs = 0;
  const take = (bytes: Uint8Array) => {
    for (const line of lines.take(bytes)) {
      const read = readScaleLine(line);
      if (!read) continue;
      lastMs = Math.max(Date.now(), lastMs + 1);
      const isStable = read.isStable === null ? {} : { isStable: read.isStable };
      const reading: Reading = {
        atMs: lastMs,
        g: read.g,
        state: read.g === null ? 'overloaded' : 'ok',
        ...isStable,
      };
      for (const hear of hearers) hear(reading);
    }
  };
  const gone = () => {
    open = null;
    void port.close().catch(() => undefined);
    for (const hear of hearers) hear({ atMs: Date.now(), g: null, state: 'unplugged' });
    tell({ is: 'lost', words: 'The scale of this device is gone. Plug it in again, or take the house’s.' });
  };
  open = { port, end: reading(port, take, gone) };
  localStorage.setItem(FORM_KEY, JSON.stringify(form));
  tell({ is: 'on', words: `A scale at this device: ${formWords(form)}.` });
}

/** Finds a port's setting and follows it. */
async function take(port: Port): Promise<void> {
  await letGo();
  tell({ is: 'looking', words: 'Listening for the scale …' });
  const form = await findForm(
    (one, forMs) => heard(port, one, forMs),
    keptForm(),
    (one, at) => tell({ is: 'looking', words: `Listening at ${formWords(one)} (${at + 1})` }),
  );
  if (!form) {
    tell({
      is: 'none',
      words:
        'Nothing that a scale sends was heard. Set the scale to send by itself (not at the press of a key), and try again.',
    });
    return;
  }
  await follow(port, form);
}

/** Asks for a scale that is plugged in here. */
export async function chooseScale(): Promise<void> {
  const port = await serial()
    ?.requestPort()
    .catch(() => null);
  if (port) await take(port);
}

/** Plays a recording as if its scale were plugged in, once over, and rests at its last line. */
export const playScale = (recording: Recording): Promise<void> => take(playedPort(recording));

/** Back to the scale of the house. */
export async function letGo(): Promise<void> {
  const was = open;
  open = null;
  await was?.end();
  if (state.is !== 'none') tell(NONE);
}

/** A port on which a recording is played; in another setting than its own nothing that it says can be read. */
function playedPort({ form, lines }: Recording): Port {
  let timers: ReturnType<typeof setTimeout>[] = [];
  let readable: ReadableStream<Uint8Array> | null = null;
  const bytesOf = (text: string, isOwn: boolean) => {
    const bytes = new TextEncoder().encode(`${text}\r\n`);
    return isOwn ? bytes : bytes.map((byte, at) => (byte * 31 + at * 17) & 0xff);
  };
  const lastMs = lines.at(-1)!.atMs;
  return {
    open(asked) {
      const isOwn = asked.baudRate === form.baudRate;
      readable = new ReadableStream<Uint8Array>({
        start(stream) {
          const say = (text: string) => stream.enqueue(bytesOf(text, isOwn));
          timers = lines.map(({ atMs, text }) => setTimeout(() => say(text), atMs));
          timers.push(
            setTimeout(() => {
              timers.push(setInterval(() => say(lines.at(-1)!.text), 200));
            }, lastMs),
          );
        },
        cancel: () => timers.forEach(clearTimeout),
      });
      return Promise.resolve();
    },
    close: () => Promise.resolve(timers.forEach(clearTimeout)),
    get readable() {
      return readable;
    },
  };
}

/** Hears the scale of this device; answers how to stop. */
export function hearSerial(hear: (reading: Reading) => void): () => void {
  hearers.add(hear);
  return () => {
    hearers.delete(hear);
  };
}

let isLooked = false;

/** A scale that was let in before is followed again, also where it is plugged in later. */
function lookOnce(): void {
  if (isLooked) return;
  isLooked = true;
  const again = async () => {
    const [port] = (await serial()?.getPorts()) ?? [];
    if (port && open === null && keptForm()) await take(port);
  };
  serial()?.addEventListener('connect', () => void again());
  void again();
}

/** What is at this device. */
export function useSerial(): SerialState {
  return useSyncExternalStore(
    (watch) => {
      watchers.add(watch);
      lookOnce();
      return () => {
        watchers.delete(watch);
      };
    },
    () => state,
    () => NONE,
  );
}
