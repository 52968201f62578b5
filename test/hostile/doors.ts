/** Every endpoint with a request it would take, to be bent out of shape. */
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import {
  LOT,
  CERTIFICATE,
  MATERIAL,
  at,
  VIEW,
  EVENTS,
  SALE,
  SWAP,
  OWN_LIMIT,
  MAKE,
  LOGGED,
  WANTED,
  MAKER,
  complaint,
} from './bodies';

export interface Door {
  method: string;
  /** Address below /api/v1, with real ids. */
  path: string;
  body?: unknown;
}

/** Every door over the demo. `read` gets a JSON answer of the running application. */
export async function doors(read: (path: string) => Promise<Record<string, unknown>>): Promise<Door[]> {
  const { version, product } = await read('products/first-light');
  const { formula } = version as { formula: object };
  const { stored } = await read('products/first-light/wrap');
  const { wrap } = stored as { wrap: object };
  const { lots } = (await read('materials/olive')) as { lots: { id: string }[] };
  const details = product as object;
  const lot = lots[0]!.id;
  const { batches } = (await read('batches?state=curing')) as { batches: { id: string }[] };
  const batch = batches[0]!.id;
  return [
    {
      method: 'POST',
      path: 'assess',
      body: {
        format: 'proportia.assessment-request/1',
        formula,
        materials: [{ ...MATERIAL, id: 'dust' }],
        rules: {
          replace: false,
          limits: MATERIAL.limits,
          declarables: [{ id: 'linalool', name: 'Linalool', markets: ['EU'], thresholdPct: 0.01 }],
        },
        markets: ['EU', 'UK'],
        onDate: '2026-11-24',
        firstPlacedOn: { EU: '2026-01-01' },
        explain: true,
      },
    },
    { method: 'GET', path: 'health' },
    { method: 'GET', path: 'materials?q=lav' },
    { method: 'GET', path: 'materials?ids=olive,kaolin' },
    { method: 'GET', path: 'materials?kinds=clay,fat' },
    { method: 'POST', path: 'materials', body: { material: MATERIAL, supplier: 'us' } },
    { method: 'PUT', path: 'materials', body: { library: 'olive', supplier: 'us' } },
    { method: 'GET', path: 'materials/kaolin' },
    { method: 'GET', path: 'materials/kaolin/uses' },
    {
      method: 'PUT',
      path: 'materials/kaolin',
      body: { revision: 1, material: { ...MATERIAL, kind: 'clay' } },
    },
    { method: 'DELETE', path: 'materials/not-there' },
    { method: 'POST', path: 'materials/kaolin/papers', body: { papers: [CERTIFICATE], inbox: null } },
    { method: 'DELETE', path: 'materials/kaolin/papers/none' },
    { method: 'POST', path: 'materials/kaolin/lots', body: LOT },
    { method: 'PUT', path: `materials/olive/lots/${lot}`, body: { ...LOT, revision: 1 } },
    { method: 'DELETE', path: 'materials/kaolin/lots/none' },
    { method: 'POST', path: 'mixes', body: { name: 'Mix', parts: [{ material: 'olive', parts: 1 }] } },
    {
      method: 'PUT',
      path: 'mixes/sidings',
      body: { revision: 1, name: 'Sidings', parts: [{ material: 'scots-pine-oil', parts: 1 }] },
    },
    { method: 'GET', path: 'batches?state=curing&product=first-light' },
    {
      method: 'POST',
      path: 'batches',
      body: {
        product: 'waiting-room',
        size: { bars: 14 },
        lyeStock: { concentrationPct: 50 },
        readabilityG: 1,
        by: 'O',
      },
    },
    {
      method: 'POST',
      path: 'batches/plan',
      body: {
        product: 'first-light',
        size: { moulds: [{ id: 'slab', count: 1 }] },
        lyeStock: null,
        by: null,
      },
    },
    { method: 'GET', path: `batches/${batch}` },
    { method: 'GET', path: `batches/${batch}/assessment` },
    { method: 'GET', path: `batches/${batch}/lots` },
    {
      method: 'POST',
      path: `batches/${batch}/lots`,
      body: { material: 'olive', quantityG: 500, code: null },
    },
    { method: 'GET', path: `batches/${batch}/rescue` },
    { method: 'GET', path: `batches/${batch}/next-bar` },
    { method: 'GET', path: `batches/${batch}/twin` },
    { method: 'GET', path: `batches/${batch}/record?as=json` },
    { method: 'GET', path: `batches/${batch}/record?as=pdf` },
    { method: 'GET', path: `batches/${batch}/trace` },
    { method: 'GET', path: `batches/${batch}/follow` },
    { method: 'POST', path: `batches/${batch}/events`, body: { after: null, events: EVENTS } },
    { method: 'GET', path: 'changes' },
    { method: 'POST', path: 'changes', body: { change: { kind: 'day', onDate: '2027-01-01' } } },
    { method: 'POST', path: 'changes', body: { change: SWAP } },
    { method: 'POST', path: 'changes', body: { change: OWN_LIMIT } },
    { method: 'GET', path: 'changes/none' },
    { method: 'DELETE', path: 'changes/none' },
    { method: 'GET', path: 'changes/none/progress' },
    { method: 'POST', path: 'changes/none/accept', body: { note: 'seen' } },
    { method: 'POST', path: 'changes/none/decline', body: { reason: 'no' } },
    { method: 'GET', path: 'tasks' },
    { method: 'POST', path: 'tasks', body: { words: 'Ask for the paper', dueOn: '2027-01-01' } },
    { method: 'POST', path: 'tasks/none/done', body: { note: 'asked' } },
    { method: 'POST', path: 'tasks/none/reissue' },
    { method: 'GET', path: 'ahead' },
    { method: 'GET', path: 'rulebook' },
    { method: 'GET', path: 'rulebook?as=file' },
    { method: 'PUT', path: 'rulebook/notes', body: { revision: 0, id: 'none', text: 'confirmed' } },
    { method: 'DELETE', path: 'rulebook/own/none' },
    { method: 'POST', path: 'lots/delivery', body: { supplier: '', receivedOn: '2026-11-24', rows: [] } },
    { method: 'GET', path: 'lots/none/hold' },
    { method: 'POST', path: 'lots/none/hold', body: { isHeld: true, reason: 'x', by: null } },
    { method: 'GET', path: 'attention' },
    { method: 'GET', path: 'hands?bar=none' },
    { method: 'GET', path: 'rack' },
    { method: 'PUT', path: 'rack/days', body: { revision: 0, least: 28, usual: 42 } },
    { method: 'GET', path: 'rack/calendar' },
    { method: 'POST', path: 'rack/calendar' },
    { method: 'GET', path: 'rack/calendar/none.ics' },
    { method: 'GET', path: `batches/${batch}/cure` },
    { method: 'GET', path: `batches/${batch}/photos` },
    { method: 'POST', path: `batches/${batch}/photos?note=x`, body: 'no picture' },
    { method: 'GET', path: `batches/${batch}/photos/none` },
    { method: 'DELETE', path: `batches/${batch}/photos/none` },
    { method: 'POST', path: `batches/${batch}/parts`, body: { what: 'trimmings', name: 'Ends', massG: 20 } },
    { method: 'POST', path: 'sales', body: { rows: [SALE], preview: true, by: null } },
    { method: 'GET', path: `withdrawal?batch=${batch}&as=csv` },
    { method: 'GET', path: 'search?q=lamp' },
    { method: 'GET', path: 'ask?q=bars%20without%20palm' },
    { method: 'GET', path: 'backups' },
    { method: 'PUT', path: 'backups', body: { revision: 9, everyHours: 3, copyTo: '' } },
    { method: 'GET', path: 'backups/none' },
    { method: 'POST', path: 'backups/none/restore' },
    { method: 'GET', path: 'archive' },
    { method: 'POST', path: 'archive/incoming', body: 'no archive' },
    { method: 'GET', path: 'archive/incoming/none' },
    { method: 'DELETE', path: 'archive/incoming/none' },
    { method: 'POST', path: 'archive/incoming/none/take', body: { which: 'new' } },
    { method: 'GET', path: 'products/first-light/archive' },
    { method: 'GET', path: 'products/first-light/last-pour' },
    { method: 'PUT', path: 'products/first-light/school', body: { market: 'EU', school: 'added' } },
    { method: 'PUT', path: 'products/none/lye-check', body: { alkaliG: 1, secondG: 1, by: null } },
    { method: 'GET', path: 'products/first-light/substitutes?line=l1' },
    { method: 'GET', path: 'settings' },
    { method: 'PUT', path: 'settings', body: { revision: 0, currency: 'EUR', markets: ['EU'] } },
    { method: 'POST', path: 'demo', body: { sure: 'no' } },
    { method: 'GET', path: 'installation' },
    {
      method: 'POST',
      path: 'import',
      body: { preview: true, bars: [{ name: 'Mine', note: '', formula, batches: [LOGGED] }] },
    },
    {
      method: 'POST',
      path: 'import/stock',
      body: {
        preview: true,
        rows: [
          {
            row: 2,
            name: 'Olive oil',
            material: 'olive',
            own: null,
            supplier: 'Tollen Mill',
            lot: {
              supplier: 'Tollen Mill',
              code: 'A1',
              receivedOn: '2026-03-01',
              openedOn: null,
              bestBefore: null,
              quantityG: 500,
              leftG: 500,
              price: 12,
            },
          },
        ],
      },
    },
    { method: 'POST', path: 'import/names', body: { names: ['olive oil'] } },
    { method: 'GET', path: 'materials/olive/substitutes' },
    { method: 'GET', path: 'range' },
    { method: 'GET', path: 'range/days' },
    {
      method: 'POST',
      path: 'range/try',
      body: { bars: ['first-light'], onDate: at.slice(0, 10), markets: ['US'] },
    },
    { method: 'POST', path: 'range/names', body: { onDate: at.slice(0, 10), mostMovedPct: 50 } },
    { method: 'GET', path: 'range/views' },
    { method: 'PUT', path: 'range/views', body: { revision: 0, views: [VIEW] } },
    { method: 'GET', path: 'next' },
    { method: 'GET', path: 'sure' },
    {
      method: 'PUT',
      path: 'next',
      body: { revision: 0, wanted: [WANTED], planned: [], evenings: [2, 5], room: 90 },
    },
    { method: 'POST', path: 'lots/count', body: { rows: [{ lot, leftG: 3 }], reason: 'counted' } },
    { method: 'GET', path: `lots/${lot}` },
    { method: 'GET', path: `lots/${lot}/trace` },
    { method: 'GET', path: 'trace?code=FL-1' },
    { method: 'POST', path: 'scale/stand-in', body: { do: 'pour', g: 10, seconds: 1 } },
    { method: 'GET', path: 'scale/readings' },
    { method: 'GET', path: 'thermometer' },
    { method: 'POST', path: 'thermometer/stand-in', body: { c: 48 } },
    { method: 'GET', path: 'printer/jobs' },
    { method: 'POST', path: 'printer/jobs', body: { label: 'none', copies: 3 } },
    { method: 'GET', path: 'moulds' },
    { method: 'GET', path: 'moulds/long-block/warmth' },
    {
      method: 'PUT',
      path: 'moulds',
      body: { revision: 1, moulds: [{ id: 'm', name: 'M', volumeMl: 10, cavities: 1, make: MAKE }] },
    },
    { method: 'GET', path: 'maker' },
    { method: 'PUT', path: 'maker', body: { revision: 1, ...MAKER } },
    { method: 'GET', path: 'phrases' },
    {
      method: 'PUT',
      path: 'phrases',
      body: {
        revision: 0,
        phrases: [{ say: 'glow .. (very)|so bright*', class: 'cosmetic', language: 'en' }],
      },
    },
    { method: 'PUT', path: 'craft/craft-clay', body: { maxPct: 3 } },
    { method: 'GET', path: 'inbox' },
    { method: 'GET', path: 'inbox/none' },
    { method: 'GET', path: 'logo' },
    { method: 'PUT', path: 'logo', body: '<svg/>' },
    { method: 'DELETE', path: 'logo' },
    { method: 'GET', path: 'labels/none' },
    { method: 'GET', path: 'products/first-light/file?market=EU&as=pdf' },
    {
      method: 'PUT',
      path: 'materials/olive/conditions/peanut-protein',
      body: { value: 0.4, paper: 'X 1', on: '2026-11-01', until: null },
    },
    { method: 'DELETE', path: 'materials/olive/conditions/peanut-protein' },
    {
      method: 'PUT',
      path: 'materials/olive/letters',
      body: { language: 'en', about: ['certificate'], subject: 'Papers', body: 'Dear' },
    },
    { method: 'DELETE', path: 'materials/olive/letters' },
    { method: 'GET', path: 'lists?list=lots&as=csv-comma' },
    { method: 'GET', path: 'complaints?product=first-light' },
    { method: 'POST', path: 'complaints', body: complaint },
    { method: 'PUT', path: 'complaints/not-there', body: { ...complaint, revision: 1 } },
    {
      method: 'POST',
      path: 'materials/lye-stock/made',
      body: {
        code: 'LS 1',
        of: [
          { material: 'sodium-hydroxide', lot: null, massG: 500, despite: null },
          { material: 'water', lot: null, massG: 500 },
        ],
        bestBefore: '2027-01-31',
      },
    },
    { method: 'POST', path: 'products', body: { name: 'A bar' } },
    { method: 'GET', path: 'products/first-light' },
    { method: 'DELETE', path: 'products/not-there' },
    { method: 'PUT', path: 'products/branch-line/away' },
    { method: 'DELETE', path: 'products/branch-line/away' },
    { method: 'GET', path: 'products/first-light/trial' },
    { method: 'PUT', path: 'products/first-light/details', body: { ...details, revision: 1 } },
    { method: 'POST', path: 'products/first-light/duplicate', body: { name: 'Another' } },
    { method: 'PUT', path: 'products/first-light/formula', body: { revision: 1, formula } },
    { method: 'GET', path: 'products/first-light/versions' },
    { method: 'POST', path: 'products/first-light/versions', body: { revision: 1, name: 'kept' } },
    { method: 'GET', path: 'products/first-light/wrap' },
    { method: 'PUT', path: 'products/first-light/wrap', body: { revision: 1, wrap } },
    { method: 'POST', path: 'products/first-light/label/preview', body: { market: 'US', wrap } },
    { method: 'GET', path: 'products/first-light/price' },
    {
      method: 'PUT',
      path: 'products/first-light/price',
      body: {
        ...{ revision: 9, price: 6, packEach: 0.3, energyBatch: 1, otherHours: 2, unsoldPct: 5 },
        energyHot: 4,
        channels: [{ id: 'stall', name: 'Stall', feePct: 0, feeEach: 0, taxPct: 19, isTaxIn: true }],
      },
    },
    { method: 'GET', path: 'products/first-light/label?market=EU&as=pdf' },
    { method: 'GET', path: `products/night-mail/label?market=EU&as=card&batch=${batch}` },
    { method: 'POST', path: 'products/first-light/issued', body: { market: 'EU' } },
  ];
}

const ROUTES = 'src/pages/api/v1';

/** The addresses of every endpoint there is, `[id]` for what varies. */
export function routes(folder = ROUTES): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return routes(path);
    return [path.slice(ROUTES.length + 1).replace(/(?:\/index)?\.ts$/, '')];
  });
}

/** Whether a door leads to an endpoint. */
export function leadsTo({ path }: Door, route: string): boolean {
  const asked = path.split('?')[0]!.split('/');
  const parts = route.split('/');
  return (
    parts.length === asked.length && parts.every((part, at) => part.startsWith('[') || part === asked[at])
  );
}
