/** A keystroke on a worktable of 40 lines, to its painted verdict, against an empty paint of the same page. */
import { chromium, expect, type Page } from '@playwright/test';
import playwright from '../../playwright.config';
import { startApplication } from '../browser/application';
import { seedOnce } from '../support/seeded';
import { sized } from './size';

const OILS = 20;
const FATS = 12;
const STROKES = sized(120, 4);
const WARM_UP = sized(15, 1);

interface Line {
  id: string;
  material: string;
  stage: string;
  amount: { value: number; unit: string };
  measuredBy: string;
}

/** A bar of 40 lines in the demo's house; its id. */
async function makeBar(url: string): Promise<string> {
  const json = (method: string, body: unknown) => ({
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  const kinds = new Map<string, string[]>();
  for (const letter of 'abcdefghilmnoprstuvw') {
    const answer = await fetch(`${url}/api/v1/materials?q=${letter}`);
    const { materials } = (await answer.json()) as {
      materials: { material: { id: string; kind: string } }[];
    };
    for (const { material } of materials)
      kinds.set(material.kind, [...new Set([...(kinds.get(material.kind) ?? []), material.id])]);
  }
  const made = (await (
    await fetch(`${url}/api/v1/products`, json('POST', { name: 'Forty lines' }))
  ).json()) as {
    id: string;
  };
  const { version } = (await (await fetch(`${url}/api/v1/products/${made.id}`)).json()) as {
    version: { revision: number; formula: { lines: Line[] } };
  };
  const line = (id: string, material: string, stage: string, value: number): Line => ({
    id,
    material,
    stage,
    amount: { value, unit: '%fats' },
    measuredBy: 'scale',
  });
  const fats = kinds.get('fat')!.slice(0, FATS);
  const oils = kinds.get('essentialOil')!.slice(0, OILS);
  const others = [...(kinds.get('clay') ?? []), ...(kinds.get('botanical') ?? [])].slice(0, 7);
  const lines = [
    ...fats.map((id, index) => line(`f${index}`, id, 'fats', 100 / fats.length)),
    { ...line('w', 'water', 'liquid', 100), amount: { value: 100, unit: '%liquid' } },
    ...oils.map((id, index) => line(`o${index}`, id, 'trace', 0.15)),
    ...others.map((id, index) => line(`x${index}`, id, 'trace', 0.5)),
  ];
  const body = { revision: version.revision, formula: { ...version.formula, lines } };
  const saved = await fetch(`${url}/api/v1/products/${made.id}/formula`, json('PUT', body));
  if (!saved.ok) throw new Error(await saved.text());
  return made.id;
}

/** Milliseconds of each keystroke to the second frame after it, and of as many empty paints by turns. */
function measure(page: Page, strokes: number): Promise<{ keyMs: number[]; emptyMs: number[] }> {
  return page.evaluate(async (count) => {
    const field = document.querySelectorAll<HTMLInputElement>('[data-line="load"] input')[0]!;
    const setValue = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!;
    const dummy = document.body.appendChild(document.createElement('p'));
    const painted = () => new Promise<void>((done) => requestAnimationFrame(() => setTimeout(done, 0)));
    // Rests differ over the length of a frame, so that both kinds begin at every point of it alike.
    let rests = 0;
    const took = async (change: () => void) => {
      await new Promise((rest) => setTimeout(rest, 30 + ((rests++ * 5) % 17)));
      const start = performance.now();
      change();
      await painted();
      return performance.now() - start;
    };
    const keyMs: number[] = [];
    const emptyMs: number[] = [];
    for (let stroke = 0; stroke < count; stroke++) {
      emptyMs.push(await took(() => (dummy.textContent = String(stroke))));
      keyMs.push(
        await took(() => {
          setValue.call(field, `0.${10 + (stroke % 40)} %`);
          field.dispatchEvent(new InputEvent('input', { bubbles: true }));
        }),
      );
    }
    return { keyMs, emptyMs };
  }, strokes);
}

const at = (times: readonly number[], share: number) =>
  [...times].sort((a, b) => a - b)[Math.floor(times.length * share)]!;

/** Prints one line. */
export async function benchKeystroke(): Promise<void> {
  const takeAway = seedOnce();
  const application = await startApplication();
  const browser = await chromium.launch(playwright.use?.launchOptions);
  try {
    await measureAndPrint(await browser.newPage({ viewport: { width: 1280, height: 800 } }), application.url);
  } finally {
    await browser.close();
    application.stop();
    takeAway();
  }
}

async function measureAndPrint(page: Page, url: string): Promise<void> {
  const bar = await makeBar(url);
  await page.goto(`${url}/bars/${bar}`);
  await expect(page.locator('astro-island[ssr]')).toHaveCount(0);
  await measure(page, WARM_UP);
  const { keyMs, emptyMs } = await measure(page, STROKES);
  const rows = await page.locator('[data-line]').count();
  console.log(
    JSON.stringify({
      measure: `a keystroke to its painted verdict, ${rows} lines, against an empty paint of the same page`,
      ratio: Number((at(keyMs, 0.5) / at(emptyMs, 0.5)).toFixed(2)),
      slowOnes: Number((at(keyMs, 0.95) / at(emptyMs, 0.95)).toFixed(2)),
      wanted: 'at most 1.5, slow ones 2',
      keyMs: Number(at(keyMs, 0.5).toFixed(1)),
      emptyMs: Number(at(emptyMs, 0.5).toFixed(1)),
    }),
  );
}
