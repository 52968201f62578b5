/** What is sent to doors, in the shape they take, before it is bent. */
export const LOT = {
  supplier: 'H & D',
  code: 'A',
  receivedOn: '2026-01-01',
  openedOn: null,
  bestBefore: '2027-01-01',
  quantityG: 10,
  leftG: 5,
  price: 1,
};
export const CERTIFICATE = {
  type: 'certificate',
  number: 'X-1',
  edition: '51st',
  issuedOn: '2026-01-01',
  issuer: 'X',
  maxPct: 1,
  category: '9',
  otherCategories: [{ category: '4', maxPct: 2 }],
  limits: [{ constituent: 'linalool', maxPct: 2 }],
  vanillinPct: 0.5,
  flashPointC: 80,
  constituents: [{ id: 'linalool', lowPct: 1, typicalPct: 2, highPct: 3 }],
  fileName: 'x.pdf',
};
export const MATERIAL = {
  name: 'Dust',
  kind: 'fat',
  saponification: { naohPerGram: 0.135, as: 'triglyceride', formedInci: 'Sodium Dust' },
  waterPct: 1,
  density: 1,
  bulkDensity: 0.5,
  fattyAcids: { oleic: 70, lauric: 3 },
  inci: [{ name: 'Dust', sharePct: 100, role: 'ingredient', names: { US: 'House dust' } }],
  constituents: [{ id: 'linalool', lowPct: 1, typicalPct: 2, highPct: 3 }],
  limits: [
    { id: 'own', subject: { type: 'material', id: 'dust' }, maxPct: 1, basis: 'fats', force: 'craft' },
  ],
};
export const at = '2026-11-24T09:00:00+01:00';
export const VIEW = { name: 'Mornings', find: 'rose', show: 'needs', market: 'EU', group: 'scent' };
export const EVENTS = [
  { id: 'n1', type: 'noted', at, by: 'O', text: 'soft', for: 'record' },
  { id: 'w1', type: 'barWeighed', at, by: null, bar: '3', massG: 99.1, readabilityG: 0.1 },
  { id: 'c1', type: 'checked', at, by: null, check: 'pH', outcome: 'good', value: '9', note: 'x' },
  { id: 'm1', type: 'moved', at, by: null, bars: 1, how: 'sample', to: 'x', note: 'y', market: 'EU' },
  {
    id: 'a1',
    type: 'weighed',
    at,
    by: null,
    line: 'l1',
    massG: 5,
    readabilityG: 1,
    how: 'scale',
    lot: 'x',
    portion: 'p',
    despite: 'z',
  },
];
export const SALE = {
  day: '2026-11-20',
  what: 'First Light',
  bars: 1,
  how: 'sale',
  to: 'x',
  market: 'EU',
  note: 'y',
  ref: '1',
  despite: 'z',
};
export const SWAP = { kind: 'swap', from: 'shea', to: 'cocoa', by: 'headroom', products: ['first-light'] };
export const OWN_LIMIT = {
  kind: 'limit',
  limit: {
    id: 'own',
    subject: { type: 'material', id: 'shea' },
    maxPct: 5,
    basis: 'cured',
    force: 'standard',
    markets: ['EU'],
  },
};
export const MAKE = { wall: 'wood', form: 'block', widthMm: 70, lengthMm: 200 };
export const LOGGED = {
  ...{ code: 'T-1', day: '2026-10-01', bars: 12 },
  weighed: [{ line: 'alkali', massG: 80, readabilityG: 0.1 }],
};
export const WANTED = { id: 'w', product: 'first-light', name: 'Fair', day: '2027-01-01', bars: 3 };
export const MAKER = { name: 'Signalbox Soap', addressLines: ['The Box', 'Tollen Halt'] };

export const complaint = {
  ...{ heardOn: '2026-11-20', code: 'FL-260915/3', product: 'first-light', market: 'EU' },
  ...{ kind: 'effect', gravity: 'serious', what: 'A rash.', who: 'A buyer', done: '', closedOn: null },
};
