/** Scales on a serial line: lines in the usual forms, and the setting found by listening. */
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { readScaleLine } from '../../src/core/weighing/lines';
import {
  findForm,
  formWords,
  isScaleHeard,
  LineReader,
  readRecording,
  SERIAL_FORMS,
  type SerialForm,
} from '../../src/core/weighing/serial';

/** Written down before the reader was tried on them: line, grams, stable. */
const LINES: readonly [string, number | null | undefined, (boolean | null)?][] = [
  ['ST,GS,+00123.4  g', 123.4, true],
  ['US,NT,-  12.50 g', -12.5, false],
  ['S S      12.34 g', 12.34, true],
  ['S D      12.34 g', 12.34, false],
  ['   123.4 g  ', 123.4, null],
  ['+ 0,1235 kg', 123.5, null],
  ['N     +   123.4 g', 123.4, null],
  ['G     +  1000.0 g', 1000, null],
  ['N     +   123.4', undefined],
  ['  1 lb  4.5 oz', 453.59237 + 4.5 * 28.349523125, null],
  ['- 0 lb 2.0 oz', -2 * 28.349523125, null],
  ['123.4 g ST', 123.4, true],
  ['123.4 g US', 123.4, false],
  ['? 123.4 g', 123.4, false],
  ['123.4 g ?', 123.4, false],
  ['WT:   123.4g', 123.4, null],
  ['Weight: 0.250 kg', 250, null],
  ['NET   123.4 g', 123.4, null],
  ['ST,NT,+  0.755 LB', 0.755 * 453.59237, true],
  ['12.3 OZ', 12.3 * 28.349523125, null],
  ['\u0002ST,+123.4 g\u0003', 123.4, true],
  ['OL', null],
  ['ST,OL', null],
  ['--------', null],
  ['  Err 4', undefined],
  ['ERR4', null],
  ['H', null],
  ['OVER', null],
  ['12.3 ct', undefined],
  ['12.3 %', undefined],
  ['0012.3', undefined],
  ['12.3 g 4.5 g', undefined],
  ['', undefined],
  ['Tare', undefined],
  ['ST,+12.3.4 g', undefined],
  ['1e3 g', undefined],
];

const two = (value: number) => value.toString(16).toUpperCase().padStart(2, '0');
const xor = (text: string) => [...text].reduce((sum, one) => sum ^ one.charCodeAt(0), 0);
const sum = (text: string) => [...text].reduce((total, one) => total + one.charCodeAt(0), 0) & 0xff;

describe('a line of a scale', () => {
  for (const [text, g, isStable] of LINES) {
    it(JSON.stringify(text), () => {
      const found = readScaleLine(text);
      if (g === undefined) expect(found).to.equal(null);
      else if (g === null) expect(found!.g).to.equal(null);
      else expect(found!.g).to.be.closeTo(g, 1e-9);
      if (isStable !== undefined) expect(found!.isStable).to.equal(isStable);
    });
  }

  it('is read where its check sum holds, and nowhere else', () => {
    const body = 'ST,+00123.4 g';
    for (const check of [xor(body), sum(body), (0x100 - sum(body)) & 0xff])
      expect(readScaleLine(`${body}*${two(check)}`)?.g, two(check)).to.equal(123.4);
    expect(readScaleLine(`ST,+00723.4 g*${two(xor(body))}`)).to.equal(null);
    const framed = (text: string, check: number) => `\u0002${text}\u0003${String.fromCharCode(check)}`;
    expect(readScaleLine(framed(body, xor(`${body}\u0003`)))?.g).to.equal(123.4);
    expect(readScaleLine(framed(body, xor(body)))?.g).to.equal(123.4);
    expect(readScaleLine(framed('ST,+00923.4 g', xor(`${body}\u0003`)))).to.equal(null);
  });

  it('says the step of its display', () => {
    expect(readScaleLine('ST,+0,1235 kg')!.stepG).to.be.closeTo(0.1, 1e-9);
    expect(readScaleLine('1 lb 4.5 oz')!.stepG).to.be.closeTo(2.8349523125, 1e-9);
  });
});

/** A scale that speaks in one setting; in any other its bytes come out as others. */
function speaking(own: SerialForm, lines: readonly string[]) {
  const tried: SerialForm[] = [];
  const listen = (form: SerialForm) => {
    tried.push(form);
    const bytes = new TextEncoder().encode(lines.map((line) => `${line}\r\n`).join(''));
    if (form.baudRate !== own.baudRate) {
      const wrong = bytes.map((byte, at) => (byte * 31 + at * 17 + form.baudRate) & 0xff);
      return Promise.resolve([wrong]);
    }
    const isSeven = own.dataBits === 7 && form.dataBits === 8;
    return Promise.resolve(
      [bytes.slice(0, 9), bytes.slice(9)].map((part) => (isSeven ? part.map((byte) => byte | 0x80) : part)),
    );
  };
  return { listen, tried };
}

describe('a scale whose setting nobody knows', () => {
  const lines = ['US,+0012.4 g', 'ST,+0012.6 g', 'ST,+0012.6 g'];

  it('is found by listening, whichever it is, and where it was first', async () => {
    for (const own of SERIAL_FORMS) {
      const { listen } = speaking(own, lines);
      expect((await findForm(listen))?.baudRate, formWords(own)).to.equal(own.baudRate);
    }
    const last = SERIAL_FORMS.at(-1)!;
    const { listen, tried } = speaking(last, lines);
    expect(await findForm(listen, last)).to.equal(last);
    expect(tried).to.deep.equal([last]);
  });

  it('is told where none is heard, or nothing that is a scale', async () => {
    expect(await findForm(() => Promise.resolve([]))).to.equal(null);
    const other = speaking(SERIAL_FORMS[0]!, ['hello', 'temperature 21', '123.4 g', 'ok', 'ok']);
    expect(await findForm(other.listen)).to.equal(null);
    expect(isScaleHeard(['123.4 g', '123.4 g'])).to.equal(true);
    expect(isScaleHeard(['123.4 g'])).to.equal(false);
  });

  it('sends lines in any pieces, with any ends', () => {
    const reader = new LineReader();
    const said = 'ST,+1.0 g\r\nST,+2.0 g\rST,+3.0 g\n\u0002ST,+4.0 g\u0003A\r\n';
    const heard: string[] = [];
    for (const letter of said) heard.push(...reader.take(new TextEncoder().encode(letter)));
    expect(heard.map((line) => readScaleLine(line.replace(`\u0003A`, '\u0003'))?.g)).to.deep.equal([
      1, 2, 3, 4,
    ]);
    expect(reader.take(new Uint8Array(100_000).fill(65))).to.deep.equal([]);
  });
});

describe('a recording of a scale', () => {
  it('ships, is read with its setting, and is a pour as the bench follows it', () => {
    const recording = readRecording(readFileSync('public/recordings/scale-pour.txt', 'utf8'))!;
    expect(formWords(recording.form)).to.equal('2400 baud, 7 bits, even parity');
    const read = recording.lines.map(({ text }) => readScaleLine(text));
    expect(read.filter((one) => one === null)).to.deep.equal([]);
    expect(Math.max(...read.map((one) => one!.g ?? 0))).to.be.closeTo(84.6, 0.5);
    expect(read.at(-1)!.isStable).to.equal(true);
  });

  it('is refused where it is none', () => {
    for (const text of ['', 'hello', '# 9600 8 N 1', '# fast\n0 1 g'])
      expect(readRecording(text)).to.equal(null);
  });
});
