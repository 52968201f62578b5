/** The product's file of a bar in a market, gathered from every place that holds something of it. */
import { formulaFacts, takenApart } from '../../../core/claims/facts';
import { readText } from '../../../core/claims/read';
import { ownSentences, unknownOf, wordsOfWrap } from '../../../core/claims/words';
import { fileOf } from '../../../core/file';
import type { Attached, FileBatch, FileInput, FileMaterial, ProductFile } from '../../../core/file/types';
import type { Market } from '../../../core/formula/types';
import { checkItems, colourFindings } from '../../../core/labels/checklist';
import { LONGEST_BEST_BEFORE_MONTHS } from '../../../core/labels/content';
import { runSheet } from '../../../core/making/run-sheet';
import type { IssuedLabel } from '../../../core/records/wrap';
import { colourKnown, rulebook } from '../../../rulebook';
import { claimReader } from '../../../rulebook/claims';
import { marketRules } from '../../../rulebook/markets';
import { KEPT_YEARS } from '../../../rulebook/telling';
import type { House } from '../../house';
import { onThread } from '../../jobs/threads';
import { told } from '../../jobs/told';
import { inboxBytes, inboxEntries } from '../../repositories/inbox';
import { findMaker } from '../../repositories/settings';
import { issuedLabels, issuedPdf } from '../../repositories/wraps';
import { listBatches, requireBatch } from '../../store/batches';
import { conditionsOfBar } from '../../store/conditions';
import { papersStanding } from '../../store/papers';
import { materialsOf, snapshotOf, type StoreSnapshot } from '../../store/snapshot';
import { recordOf } from '../pour/batch-record';
import { gather, netOf, standingOf, type Gathered } from '../wrap/wrap';
import { listComplaints } from './complaints';

/** Batches and labels that a file tells of, the newest. */
const MOST_BATCHES = 12;
const MOST_LABELS = 24;

/** The materials of the formula, mixes with what they are made of, with their papers. */
function materialsWith({ materials }: Gathered, snapshot: StoreSnapshot, today: string): FileMaterial[] {
  const ids = new Set(
    materials.flatMap(({ id, madeOf }) => [id, ...(madeOf ?? []).map((part) => part.material)]),
  );
  return [...ids].flatMap((id) => {
    const material = snapshot.material(id);
    const stored = snapshot.stored.find((one) => one.material.id === id);
    if (!material || !stored) return [];
    const { supplier, documents } = stored;
    return [{ material, supplier, documents, papers: papersStanding(documents, today) }];
  });
}

async function batchesOf(house: House, product: string): Promise<FileBatch[]> {
  const poured = (await listBatches(house, { state: null, product })).filter(
    ({ pouredAt }) => pouredAt !== null,
  );
  const told: FileBatch[] = [];
  for (const { id } of poured.slice(0, MOST_BATCHES)) {
    const record = await recordOf(house, id);
    told.push({ record, weighings: (await requireBatch(house, id)).batch.barWeighings });
  }
  return told;
}

interface Along {
  attached: Attached[];
  /** Reads what goes along, by name. */
  read: (() => Promise<{ name: string; bytes: Uint8Array } | null>)[];
}

const safe = (name: string) => name.replace(/[^\w.-]+/g, '-').slice(-80);

/** Papers that are still in the tray as they came, and labels as they were issued. */
async function alongOf(
  { db }: House,
  materials: readonly FileMaterial[],
  issued: readonly IssuedLabel[],
): Promise<Along> {
  const along: Along = { attached: [], read: [] };
  const add = (name: string, what: string, read: () => Promise<Uint8Array | null | undefined>) => {
    if (along.attached.some((one) => one.name === name)) return;
    along.attached.push({ name, what });
    along.read.push(async () => {
      const bytes = await read();
      return bytes ? { name, bytes: new Uint8Array(bytes) } : null;
    });
  };
  const tray = new Map((await inboxEntries(db)).map((entry) => [entry.fileName, entry]));
  for (const { material, documents } of materials)
    for (const { fileName, number, type } of documents) {
      const entry = fileName === undefined ? undefined : tray.get(fileName);
      if (entry)
        add(
          `papers/${safe(entry.fileName)}`,
          `${material.name}: ${type} ${number}`,
          async () => (await inboxBytes(db, entry.id))?.bytes,
        );
    }
  for (const { id, issuedOn, batchCode } of issued)
    add(`labels/${safe(id)}.pdf`, `label issued ${issuedOn}, batch ${batchCode}`, () => issuedPdf(db, id));
  return along;
}

/** What the market asks of the formula's bar, item by item. */
function itemsOf(
  gathered: Gathered,
  market: Market,
  known: Pick<FileInput, 'standing' | 'claims' | 'responsible'> & { unknown: readonly string[] },
): FileInput['items'] {
  const { assessment, materials, stored } = gathered;
  const { identity, cautions, durability, batchCode, evidence = [] } = stored.wrap;
  return checkItems(marketRules(market).items, {
    ...{ ...known, market, assessment, identity, cautions, batchCode, evidence },
    colours: colourFindings(materials, (name) => colourKnown(rulebook(), name, market)),
    netMassG: netOf(gathered, stored.wrap),
    durabilityStated:
      durability !== null && (durability.months > LONGEST_BEST_BEFORE_MONTHS || Boolean(durability.endsOn)),
  });
}

async function inputOf(
  house: House,
  id: string,
  market: Market,
): Promise<{ input: FileInput; along: Along }> {
  const { db, today } = house;
  const gathered = await gather(house, id);
  const {
    product,
    version,
    assessment,
    materials,
    stored: { wrap },
    ownPhrases,
  } = gathered;
  const snapshot = await snapshotOf(db, today);
  const maker = await findMaker(db);
  const there = maker?.elsewhere?.find((one) => one.market === market) ?? maker;
  const responsible = there ? [there.name, ...there.addressLines] : [];
  const standing = standingOf(gathered, wrap, market);
  const { claims, sentences } = readText(wordsOfWrap(product, wrap), claimReader(ownPhrases));
  const unknown = unknownOf(ownSentences(wrap, product, sentences));
  const sheet = runSheet(version.formula, materialsOf(version.formula, snapshot), {
    ...{ limits: snapshot.limits, markets: product.markets, onDate: today },
  });
  const issued = (await issuedLabels(db, id, { from: 0, most: MOST_LABELS })).filter(
    (one) => one.market === market,
  );
  const withPapers = materialsWith(gathered, snapshot, today);
  const along = await alongOf(house, withPapers, issued);
  const input: FileInput = {
    ...{
      name: product.name,
      market,
      onDate: today,
      rulebookEdition: rulebook().edition,
      standing,
      wrap,
      claims,
    },
    ...{ formula: version.formula, assessment, materials: withPapers, issued, responsible, zone: house.zone },
    items: itemsOf(gathered, market, { standing, claims, unknown, responsible }),
    firstPlacedOn: product.firstPlacedOn[market] ?? null,
    regimeWords: marketRules(market).regimes[standing.regime],
    conditions: (await conditionsOfBar(db, materials, [market], today)).filter(
      ({ condition }) => !(condition.unlessSoap && standing.regime === 'soap'),
    ),
    sheet: sheet.ok ? sheet : null,
    facts: formulaFacts(takenApart(materials, (one) => snapshot.material(one))),
    batches: await batchesOf(house, id),
    complaints: await listComplaints(house, { product: id }),
    keptWords: KEPT_YEARS[market]?.words ?? null,
    attached: along.attached,
  };
  return { input, along };
}

/** What the file of a bar in a market would hold; 404 where there is no such bar, 422 where its formula does not reckon. */
export async function productFile(house: House, id: string, market: Market): Promise<ProductFile> {
  return fileOf((await inputOf(house, id, market)).input);
}

/** The same as one PDF with an index, or as a ZIP with papers and labels beside it. */
export async function productFileAs(
  house: House,
  id: string,
  market: Market,
  as: 'pdf' | 'zip',
): Promise<Uint8Array> {
  const { input, along } = await inputOf(house, id, market);
  const file = fileOf(input);
  if (as === 'pdf') return told(onThread('productFilePdf', file), 'as');
  const bytes = [];
  for (const read of along.read) {
    const one = await read();
    if (one) bytes.push(one);
  }
  return told(onThread('productFileZip', { file, bytes }), 'as');
}
