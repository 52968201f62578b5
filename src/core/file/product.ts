/** What a bar is: itself, its formula, its materials with their papers, what is in the cured bar. */
import type { Kind } from '../formula/types';
import { conditionSaid } from '../paperwork/conditions';
import { binds } from '../loads/limits';
import { spoken } from '../spoken';
import { percent, section, type FileInput, type FileMaterial, type FileSection } from './types';

/** What a material does in a bar. */
const FUNCTION_WORDS: Record<Kind, string> = {
  fat: 'turns to soap; what is left of it cares for the skin',
  wax: 'turns to soap in part; hardens the bar',
  alkali: 'turns fats to soap; none is left where there is fat enough',
  liquid: 'dissolves the alkali; most of it dries off',
  milk: 'liquid and some fat',
  fragrance: 'scent',
  essentialOil: 'scent',
  isolate: 'scent',
  clay: 'body and colour',
  salt: 'hardens the bar',
  sugar: 'lather',
  botanical: 'look and feel',
  colourant: 'colour',
  exfoliant: 'scrub',
  fibre: 'feel of the lather',
  acid: 'its salt binds hard water',
  lactate: 'hardens the bar',
  other: 'as the maker says',
};

/** Product, name, who answers, what it is there. */
export function itself(input: FileInput): FileSection {
  const { name, market, wrap, standing, regimeWords, responsible, firstPlacedOn } = input;
  const told = section('itself', 'What it is, and who answers for it');
  const because = [...standing.because, ...standing.assumed].join('; ');
  told.lines = [
    `${name}. ${Object.values(wrap.identity).filter(Boolean).join(' / ') || 'What it is, is not said yet.'}`,
    wrap.description,
    `In ${market} it is ${regimeWords}${because === '' ? '' : `: ${because}`}.`,
    `Use: ${Object.values(wrap.use).filter(Boolean).join(' / ') || 'as soap is used, rinsed off'}.`,
    `Cautions: ${Object.values(wrap.cautions).filter(Boolean).join(' / ') || 'none stated.'}`,
    firstPlacedOn === null ? '' : `First placed on this market: ${firstPlacedOn}.`,
    responsible.length > 0 ? `Who answers here: ${responsible.join(', ')}.` : '',
  ].filter((line) => line !== '');
  if (responsible.join('').trim() === '')
    told.missing.push('Name and address of who answers here: put them in under Wrap, Who answers.');
  if (firstPlacedOn === null)
    told.missing.push('The day it was first placed on this market: state it at the bar.');
  if (Object.values(wrap.identity).join('').trim() === '')
    told.missing.push('What it is, in words: state it in the wrap.');
  return told;
}

const inciOf = ({ material }: FileMaterial) =>
  (material.inci ?? []).map(({ name }) => name).join(', ') || material.name;

/** The formula in exact percent of the batter and of the cured bar. */
export function formula(input: FileInput): FileSection {
  const { assessment, materials, formula: own } = input;
  const { masses, superfat } = assessment;
  const told = section('formula', 'Formula');
  const rows = own.lines.map((line, at) => {
    const known = materials.find(({ material }) => material.id === line.material);
    const { pctPour } = assessment.lines[at]!;
    const words = known
      ? [
          known.material.name,
          inciOf(known),
          (known.material.numbers ?? []).join(', ') || 'none on file',
          FUNCTION_WORDS[known.material.kind],
          known.supplier ?? 'not stated',
        ]
      : [line.material, '', '', '', ''];
    return { pctPour, row: [...words, percent(pctPour)] };
  });
  const alkaliPct = (100 * masses.alkaliG) / masses.pourG;
  rows.push({
    pctPour: alkaliPct,
    row: ['Sodium hydroxide', 'Sodium Hydroxide', '1310-73-2', FUNCTION_WORDS.alkali, '', percent(alkaliPct)],
  });
  told.tables.push({
    columns: ['Material', 'Ingredient name', 'CAS, EC, CI', 'What for', 'From', 'Of the batter'],
    at: [0, 18, 40, 54, 74, 88],
    rows: rows.sort((a, b) => b.pctPour - a.pctPour).map(({ row }) => row),
  });
  const effective = superfat.effectivePct;
  told.lines.push(
    `Superfat in effect ${effective === null ? 'none' : percent(effective)}; the cured bar is ${percent((100 * masses.curedG) / masses.pourG)} of the batter.`,
  );
  // What a mix is made of stands on lines of its own.
  const single = materials.filter(({ material }) => !material.madeOf?.length);
  const nameless = single.filter(({ material }) => !material.inci?.length);
  if (nameless.length > 0)
    told.missing.push(
      `Ingredient names of ${nameless.map(({ material }) => material.name).join(', ')}: state them in the cupboard.`,
    );
  const numberless = single.filter(({ material }) => !material.numbers?.length);
  if (numberless.length > 0)
    told.missing.push(
      `CAS or EC numbers of ${numberless.length} materials (${numberless.map(({ material }) => material.name).join(', ')}): from their papers, in the cupboard.`,
    );
  const fromNobody = single.filter(({ supplier }) => supplier === null);
  if (fromNobody.length > 0)
    told.missing.push(`Suppliers of ${fromNobody.map(({ material }) => material.name).join(', ')}.`);
  return told;
}

/** Papers of each material, and which of them count. */
export function papers({ materials, onDate, conditions }: FileInput): FileSection {
  const told = section('papers', 'Materials: purity and papers');
  const rows = materials.flatMap(({ material, papers: standing, documents }) => {
    const counting = [standing.certificate?.paper.id, standing.allergens?.paper.id];
    return documents.map((one) => [
      material.name,
      one.type === 'certificate' ? 'certificate' : 'allergen declaration',
      one.number,
      `${one.issuer}, ${one.issuedOn}`,
      one.edition ?? '',
      counting.includes(one.id) ? 'counts' : 'kept',
    ]);
  });
  if (rows.length > 0)
    told.tables.push({
      columns: ['Material', 'Paper', 'Number', 'From, of', 'Edition', `On ${onDate}`],
      at: [0, 26, 44, 60, 80, 90],
      rows,
    });
  const scents = materials.filter(({ material: { kind, madeOf } }) =>
    (['fragrance', 'essentialOil', 'isolate'] as const).some((one) => one === kind && !madeOf?.length),
  );
  for (const { material, papers: standing } of scents) {
    if (!standing.certificate) told.missing.push(`Certificate of ${material.name}: ask the supplier.`);
    else if (standing.certificate.ask) told.missing.push(`${material.name}: ${standing.certificate.ask}`);
    if (!standing.allergens) told.missing.push(`Allergen declaration of ${material.name}: ask the supplier.`);
  }
  const others = materials.filter(
    (one) => !scents.includes(one) && !one.material.madeOf?.length && one.documents.length === 0,
  );
  if (others.length > 0)
    told.missing.push(
      `Specification or safety data sheet of ${others.map(({ material }) => material.name).join(', ')}: none is on file here.`,
    );
  for (const stand of conditions)
    (stand.state === 'met' ? told.lines : told.missing).push(conditionSaid(stand));
  for (const { material } of materials)
    for (const caution of material.cautions ?? []) told.lines.push(`${material.name}: ${caution}`);
  return told;
}

/** What the cured bar holds, against limits and thresholds, with the doubt. */
export function inTheBar({ assessment, market, materials }: FileInput): FileSection {
  const told = section('bar', 'In the cured bar: limits, constituents, allergens');
  const named = new Map(materials.map(({ material }) => [material.id, material.name]));
  const limits = assessment.limits.filter((row) => row.market === market && binds(row.force));
  told.tables.push({
    columns: ['What', 'Low', 'Nominal', 'High', 'At most', 'Stands', 'Source'],
    at: [0, 22, 31, 40, 49, 58, 68],
    rows: limits.map(({ subject, lowPct, nominalPct, highPct, maxPct, verdict, source }) => [
      named.get(subject.id) ?? spoken(subject.id),
      ...[lowPct, nominalPct, highPct, maxPct].map(percent),
      verdict,
      source ?? '',
    ]),
  });
  const declared = assessment.declarables.filter((row) => row.market === market && row.highPct > 0);
  if (declared.length > 0)
    told.tables.push({
      columns: ['Scent allergen', 'Low', 'High', 'Named from', 'On the label'],
      at: [0, 40, 52, 64, 78],
      rows: declared.map(({ name, lowPct, highPct, thresholdPct, declare, certain }) => [
        name,
        percent(lowPct),
        percent(highPct),
        percent(thresholdPct),
        declare ? (certain ? 'named' : 'named, to be sure') : 'under the threshold',
      ]),
    });
  const verdict = assessment.markets.find((one) => one.market === market)?.verdict ?? 'unproven';
  told.lines.push(`Held against what is on file: ${verdict}.`);
  if (verdict === 'over' || verdict === 'atRisk' || verdict === 'unproven')
    told.missing.push(`The bar stands ${verdict} here: see what speaks against it on the worktable.`);
  const unproven = assessment.unproven.filter((one) => one.market === market);
  if (unproven.length > 0)
    told.missing.push(`${unproven.length} of its scents have no limit of their own on file.`);
  return told;
}
