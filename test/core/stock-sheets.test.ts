/** Makers' lists of materials and lots: heads, units, prices and days understood, in layouts made up apart from what reads them. */
import { expect } from 'chai';
import fc from 'fast-check';
import { dayOrderOf, readDay } from '../../src/core/sheets/days';
import { matchName, namedMaterials } from '../../src/core/sheets/match';
import { readHeld, readStock } from '../../src/core/sheets/stock';
import { guessStock, isStock, kindIn } from '../../src/core/sheets/stock-layout';
import { takeStock } from '../../src/core/sheets/stock-take';
import { LIBRARY } from '../../src/library';
import { makeSheet } from '../support/sheets';
import { makeStockSheet, type MadeStock } from '../support/stock-sheets';

const TODAY = '2026-11-24';
const MATERIALS = namedMaterials(LIBRARY);
const find = (name: string) => matchName(name, MATERIALS);
const taken = (rows: string[][], kinds: Record<string, 'fat' | 'clay' | 'fragrance'> = {}) => {
  const read = readStock(rows, guessStock(rows));
  const made = takeStock(read.items, { find, newKind: (name) => kinds[name] ?? null, today: TODAY });
  return { rows: made.rows, faults: [...read.faults, ...made.faults] };
};

/** What of a list came in otherwise than it was meant. */
function faultsOf({ rows, stock }: MadeStock): string[] {
  if (!isStock(rows)) return ['taken for bars'];
  const { rows: found, faults } = taken(rows);
  if (faults.length > 0) return faults.map(({ row, message }) => `row ${row}: ${message}`);
  if (found.length !== stock.length) return [`${found.length} of ${stock.length} rows`];
  return stock.flatMap((meant, at) => {
    const { material, supplier, lot } = found[at]!;
    const off = (a: number, b: number) => Math.abs(a - b) > 1e-6 * Math.max(1, b);
    const wrong = [
      !meant.ids.includes(material ?? '') && `is ${material}`,
      supplier !== meant.supplier && `from ${supplier}`,
      meant.code !== null && lot?.code !== meant.code && `lot ${lot?.code}`,
      off(lot?.quantityG ?? -1, meant.boughtG) && `${lot?.quantityG} g bought`,
      off(lot?.leftG ?? -1, meant.leftG) && `${lot?.leftG} g left`,
      (meant.price === null ? lot?.price !== null : off(lot?.price ?? -1, meant.price)) &&
        `price ${lot?.price}`,
      lot?.receivedOn !== (meant.receivedOn ?? TODAY) && `came ${lot?.receivedOn}`,
      lot?.bestBefore !== meant.bestBefore && `until ${lot?.bestBefore}`,
    ].filter(Boolean);
    return wrong.length > 0
      ? [`${rows.find((row) => row.includes(meant.code ?? '-'))?.join(' | ')}: ${wrong.join(', ')}`]
      : [];
  });
}

describe('a maker’s list of materials', () => {
  it('in five layouts comes in as it was meant', () => {
    const seen = new Set<string>();
    for (let seed = 1; seed <= Number(process.env.SHEETS ?? 40); seed++) {
      const made = makeStockSheet(seed + Number(process.env.SHEETS_SEED ?? 0), 8);
      seen.add(made.layout);
      expect(faultsOf(made), `${seed} ${made.layout}`).to.deep.equal([]);
    }
    expect(seen.size).to.equal(5);
  });

  it('counts packs of a size, says what is left as a share, and in words that nothing is', () => {
    const lots = (text: string) =>
      taken(text.split('\n').map((row) => row.split(';'))).rows.map(
        ({ lot }) => lot && [Math.round(lot.quantityG), Math.round(lot.leftG)],
      );
    expect(lots('Item;Bottles;Size;Supplier\nCastor oil;2;1 l;Quayside')).to.deep.equal([[1920, 1920]]);
    expect(lots('Item;Quantity;Size\nKaolin;3;500 g')).to.deep.equal([[1500, 1500]]);
    expect(lots('Chemical;Pack;Count;Lot\nCitric acid;500 g;2;C1')).to.deep.equal([[1000, 1000]]);
    expect(lots('Material;Bought;Left\nShea butter;5 kg;40 %')).to.deep.equal([[5000, 2000]]);
    expect(lots('Material;Bought;Left;Lot\nShea butter;5 kg;empty;S1')).to.deep.equal([[5000, 0]]);
    expect(lots('Rohstoff;Charge;Rest g\nJojoba;JO-2;250')).to.deep.equal([[250, 250]]);
    expect(lots('Nombre;Cantidad;Lote\nKaolin;2 kg;K9')).to.deep.equal([[2000, 2000]]);
    const unread = taken([
      ['Item', 'Bottles', 'Size'],
      ['Castor oil', 'a few', '1 l'],
    ]);
    expect(unread.rows[0]?.lot).to.equal(null);
    expect(unread.faults.map(({ message }) => message).join()).to.include('no number of packs');
  });

  it('as shops and habits have it: gallons, pails, prices a pound, months alone, numbers for articles', () => {
    const lots = (rows: string[][]) => {
      const { rows: found, faults } = taken(rows);
      expect(faults).to.deep.equal([]);
      return found.map(({ material, lot }) => [
        material,
        lot && Math.round(lot.quantityG),
        lot?.price && Number(lot.price.toFixed(2)),
        lot?.bestBefore,
      ]);
    };
    expect(
      lots([
        ['Soap supplies 2026'],
        ['Product', 'Brand / shop', 'Size', 'Price paid', 'Date opened', 'Exp'],
        ['Coconut oil (76)', 'Tollen Mill', '50 lb pail', '$ 92.50', '', '11/27'],
        ['Sodium hydroxide (lye)', 'Quayside', '2lb x 4', '24.99', '4/2/26', ''],
      ]),
    ).to.deep.equal([
      ['coconut', 22680, 92.5, '2027-11-30'],
      ['sodium-hydroxide', 3629, 24.99, null],
    ]);
    const olive = LIBRARY.find(({ id }) => id === 'olive')!.density!;
    expect(
      lots([
        ['Item #', 'Item', 'Purchase Price', 'Purchase Qty', 'Purchase Unit', 'Cost per oz', 'Supplier'],
        ['1', 'Olive Oil', '45.00', '1', 'gal', '0.35', 'Mill'],
        ['2', 'Lard', '12.00', '8', 'lb', '0.09', 'Mill'],
      ]),
    ).to.deep.equal([
      ['olive', Math.round(3785.411784 * olive), 45, null],
      ['lard', 3629, 12, null],
    ]);
    expect(
      lots([
        ['Ingredient', 'Starting amt (g)', 'Used (g)', 'Remaining (g)', '$/lb', 'Vendor'],
        ['Shea Butter', '1000', '250', '750', '7.90', 'Mill'],
      ]),
    ).to.deep.equal([['shea', 1000, 17.42, null]]);
    expect(
      lots([
        ['Öle', 'Menge', 'Charge', 'MHD', 'Preis'],
        ['Kokosöl', '2,5 kg', '44A', '06.2027', '13,5'],
      ]),
    ).to.deep.equal([['coconut', 2500, 13.5, '2027-06-30']]);
  });

  it('finds the day beside a column “Bought” that holds amounts', () => {
    const rows = [
      ['Material', 'Lot', 'Bought', 'Left', 'Came on'],
      ['Kaolin', 'K1', '1 kg', '800 g', '2026-10-02'],
    ];
    const [row] = taken(rows).rows;
    expect(row!.lot).to.include({ receivedOn: '2026-10-02', quantityG: 1000, leftG: 800 });
    const bought = taken([
      ['Material', 'Lot', 'Bought', 'Amount'],
      ['Kaolin', 'K1', '2026-10-02', '1 kg'],
    ]).rows[0]!;
    expect(bought.lot).to.include({ receivedOn: '2026-10-02', quantityG: 1000 });
  });

  it('reads a price that says what it is of, and what was there at first and is there now', () => {
    const [oil] = taken([
      ['Item', 'Vendor', 'Lot #', 'Purchased', 'Qty on hand', 'Unit cost'],
      ['Olive Oil - pomace', 'Barn', 'PO-4471', '10/02/2026', '32 lb', '$2.10/lb'],
      ['Coconut 76', 'Barn', 'CC-1', '10/22/2026', '10 lb', '$18.50'],
    ]).rows;
    expect(oil!.lot!.price).to.be.closeTo(67.2, 1e-9);
    expect(oil!.lot!.receivedOn).to.equal('2026-10-02');
    const [shea] = taken([
      ['Material', 'Code', 'Opening stock (g)', 'Used (g)', 'Closing stock (g)', 'Price per 100 g'],
      ['Shea butter', 'SB-1', '5000', '1200', '3800', '1.35'],
    ]).rows;
    expect(shea!.lot).to.include({ quantityG: 5000, leftG: 3800, openedOn: null });
    expect(shea!.lot!.price).to.be.closeTo(67.5, 1e-9);
  });

  it('is told apart from a sheet of bars', () => {
    for (let seed = 1; seed <= 40; seed++)
      expect(isStock(makeSheet(seed, 6).rows), `${seed}`).to.equal(false);
  });

  it('says how much there is in cells and heads, many at a time, and says what is no amount', () => {
    expect(readHeld('2 x 500 g', null, null)).to.deep.equal({ value: 1000, isVolume: false });
    expect(readHeld('1.250,5', 'g', ',')).to.deep.equal({ value: 1250.5, isVolume: false });
    expect(readHeld('0.5 l', null, null)).to.deep.equal({ value: 500, isVolume: true });
    expect(readHeld('', 'g', null)).to.equal(null);
    for (const [cell, unit] of [
      ['500', null],
      ['a tub', 'g'],
      ['3 %', 'g'],
      ['4 pallets', 'g'],
    ] as const)
      expect(readHeld(cell, unit, null), cell).to.have.property('error');
  });

  it('says days in the order that the sheet shows, months by their ends, and says what is no day', () => {
    expect(dayOrderOf(['1/2/2026', '2/14/2026'])).to.equal('monthFirst');
    expect([dayOrderOf(['1/2/2026']), dayOrderOf(['01.02.2026'])]).to.deep.equal([null, 'dayFirst']);
    expect(readDay('14/2/2026', 'monthFirst', 'first')).to.equal('2026-02-14');
    expect(readDay('March 2027', 'dayFirst', 'last')).to.equal('2027-03-31');
    expect([readDay('', 'dayFirst', 'first'), readDay('n/a', 'dayFirst', 'first')]).to.deep.equal([
      null,
      null,
    ]);
    for (const wrong of ['31/2/2026', '13/2026', 'soon'])
      expect(readDay(wrong, 'dayFirst', 'first')).to.have.property('error');
    const day = fc.date({ min: new Date('2000-01-01'), max: new Date('2050-12-31'), noInvalidDate: true });
    fc.assert(
      fc.property(day, fc.constantFrom('/', '-', '.'), (date, mark) => {
        const [y, m, d] = date.toISOString().slice(0, 10).split('-').map(Number);
        const said = (...parts: (number | undefined)[]) => parts.join(mark);
        const meant = date.toISOString().slice(0, 10);
        expect(readDay(said(d, m, y), 'dayFirst', 'first')).to.equal(meant);
        if (mark !== '.') expect(readDay(said(m, d, y), 'monthFirst', 'first')).to.equal(meant);
      }),
    );
  });

  it('makes new materials of what is not known, by its kind and how it saponifies, and never guesses either', () => {
    const heads = ['Ingredient', 'Category', 'SAP (KOH)', 'Supplier', 'Weight (g)', 'Bought'];
    const rows = [
      heads,
      ['Zzyx seed oil', 'Oils', '190', 'Tollen Mill', '500', '2026-03-01'],
      ['Night Harbour', 'Fragrance oil', '', 'Brackwater Aromatics', '100', '2026-03-01'],
      ['Qqq dust', '', '', '', '40', '2026-03-01'],
      ['Wwww butter', 'Butters', '', '', '40', '2026-03-01'],
      ['Olive oil', 'Oils', '', '', '1 l', '2026-03-01'],
    ];
    const { rows: found, faults } = taken(rows);
    expect(faults.map(({ row }) => row)).to.deep.equal([4, 5]);
    expect(found[0]!.own).to.include({ name: 'Zzyx seed oil', kind: 'fat' });
    expect(found[0]!.own!.naohPerGram).to.be.closeTo(0.1354, 1e-4);
    expect(found[1]!.own).to.deep.equal({
      name: 'Night Harbour',
      kind: 'fragrance',
      inci: '',
      naohPerGram: null,
    });
    const density = LIBRARY.find(({ id }) => id === found[2]!.material)!.density;
    expect(found[2]!.lot!.quantityG).to.be.closeTo(1000 * density!, 1e-9);
    expect(taken(rows, { 'Qqq dust': 'clay' }).faults.map(({ row }) => row)).to.deep.equal([5]);
    // A guess of another kind than the sheet says is no answer.
    const mint = taken([['Material', 'Lot', 'Bought'], ['Clays'], ['Mint', 'M1', '1 kg']]).rows[0]!;
    expect([mint.material, mint.own?.kind]).to.deep.equal([null, 'clay']);
  });

  it('takes no name for a thing of a kind that cannot stand where it stands, and asks about it', () => {
    const kindsOf = (heading: string, ...names: string[]) =>
      taken([
        ['Material', 'Lot', 'Bought'],
        [heading],
        ...names.map((name, at) => [name, `L${at}`, '1 kg']),
      ]).rows.map(({ material, own }) => material ?? `new ${own!.kind}`);
    expect(kindsOf('Clays', 'Rose', 'Kaolin')).to.deep.equal(['new clay', 'kaolin']);
    expect(kindsOf('Botanicals', 'Lavender')).to.deep.equal(['new botanical']);
    // Oils head fats and essential oils alike, additives anything.
    expect(kindsOf('Oils', 'Lavender', 'Olive oil')).to.deep.equal(['lavender-oil', 'olive']);
    expect(kindsOf('Additives', 'Kaolin', 'Lavender')).to.deep.equal(['kaolin', 'lavender-oil']);
    expect(kindsOf('Essential oils', 'Lavender')).to.deep.equal(['lavender-oil']);
  });

  it('knows kinds by what makers call them', () => {
    expect(['Essential oils', 'Mica', 'Misc', 'Rope'].map(kindIn)).to.deep.equal([
      'essentialOil',
      'colourant',
      'other',
      null,
    ]);
  });

  it('that says what cannot be read says where', () => {
    const rows = [
      ['Material', 'Lot', 'Bought', 'Left', 'Best before'],
      ['Olive oil', 'A1', '500 g', '700 g', ''],
      ['Castor oil', 'A2', 'some', '', ''],
      ['Kaolin', 'A3', '1 kg', '', 'soon'],
      ['Shea', 'A4', '', '', ''],
    ];
    const { faults } = taken(rows);
    expect(faults.map(({ row }) => row).sort()).to.deep.equal([2, 3, 4, 5]);
    expect(taken([]).rows).to.deep.equal([]);
    expect(taken([['', '']]).rows).to.deep.equal([]);
  });

  it('is told from a recipe by its heads, a name alone heads its lots, and what is not opened has no day', () => {
    const cells = (text: string) => text.split('\n').map((row) => row.split(';'));
    expect(isStock(cells('Rohstoff;Bestand (g)\nOlivenöl;12.500'))).to.equal(true);
    expect(isStock(cells('Rohstoff;Gramm\nOlivenöl;500'))).to.equal(false);
    const { rows, faults } = taken(cells('Olive oil;;\n;OL-1;3.2 kg\n;OL-2;5 kg\nCastor oil;;\n;CA-7;8 kg'));
    expect(faults).to.deep.equal([]);
    expect(rows.map(({ material, lot }) => [material, lot?.code, lot?.leftG])).to.deep.equal([
      ['olive', 'OL-1', 3200],
      ['olive', 'OL-2', 5000],
      ['castor', 'CA-7', 8000],
    ]);
    const opened = taken(cells('Material;Amount;Opened?\nRice bran oil;2 kg;yes\nKaolin clay;1 kg;no'));
    expect(opened.faults.map(({ row }) => row)).to.deep.equal([2]);
  });

  it('takes alkali and unit of a saponification value from its head, and asks where two fit or none does', () => {
    const read = (head: string, cell: string) => {
      const rows = [
        ['Ingredient', 'Category', head],
        ['Own fat', 'Oil', cell],
      ];
      const { items, faults } = readStock(rows, guessStock(rows));
      return faults.length > 0 ? 'asks' : Number((items[0]!.naohPerGram ?? NaN).toFixed(3));
    };
    expect([read('SAP NaOH', '134'), read('SAP NaOH', '0.134')]).to.deep.equal([0.134, 0.134]);
    expect([read('SAP (KOH)', '190'), read('SAP KOH', '0.19')]).to.deep.equal([0.135, 0.135]);
    expect(read('Saponification value', '190')).to.equal(0.135);
    for (const [head, cell] of [
      ['SAP', '134'],
      ['SAP', '0.134'],
      ['SAP KOH/NaOH', '190'],
      ['SAP NaOH', '1.34'],
      ['SAP NaOH', '340'],
      ['SAP KOH', '60'],
      ['SAP mg', '190'],
    ] as const)
      expect(read(head, cell), `${head} ${cell}`).to.equal('asks');
  });
});
