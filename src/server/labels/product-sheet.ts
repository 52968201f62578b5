/** The product sheet: what an assessor or a stockist is handed, as a PDF that flows over pages. */
import type { Assessment } from '../../core/formula/answer';
import type { Formula, Market, Material } from '../../core/formula/types';
import { binds } from '../../core/loads/limits';
import type { LabelContent } from '../../core/labels/content';
import type { Standing } from '../../core/labels/standing';
import type { IssuedLabel } from '../../core/records/wrap';
import { spoken } from '../../core/spoken';
import { flowingPdf, heading, rows, set, type Document } from './flow';

export interface SheetInput {
  name: string;
  identity: string;
  market: Market;
  day: string;
  rulebookEdition: string;
  formula: Formula;
  assessment: Assessment;
  materials: readonly Material[];
  content: LabelContent;
  standing: Standing;
  papers: IssuedLabel['papers'];
  /** Shares in ranges instead of exact, for a stockist. */
  inRanges: boolean;
}

/** Shares in ranges, percent, as composition is usually told. */
const RANGES: readonly (readonly [above: number, words: string])[] = [
  [50, 'over 50 %'],
  [25, '25 to 50 %'],
  [10, '10 to 25 %'],
  [5, '5 to 10 %'],
  [1, '1 to 5 %'],
  [0.1, '0.1 to 1 %'],
  [0, 'up to 0.1 %'],
];

function rangeOf(pct: number): string {
  return RANGES.find(([above]) => pct > above)?.[1] ?? RANGES[RANGES.length - 1]![1];
}

const percent = (value: number) => `${Number(value.toPrecision(4))} %`;

function formulaRows({ formula, assessment, materials, inRanges }: SheetInput): string[][] {
  const names = new Map(materials.map((material) => [material.id, material]));
  const pourG = assessment.masses.pourG;
  const lines = formula.lines.map((line, index) => {
    const material = names.get(line.material);
    const { pctPour } = assessment.lines[index]!;
    const inci = (material?.inci ?? []).map(({ name }) => name).join(', ');
    return { name: material?.name ?? line.material, inci, pct: pctPour };
  });
  lines.push({
    name: 'Sodium hydroxide',
    inci: 'Sodium Hydroxide',
    pct: (100 * assessment.masses.alkaliG) / pourG,
  });
  return lines
    .sort((a, b) => b.pct - a.pct)
    .map(({ name, inci, pct }) => [name, inci, inRanges ? rangeOf(pct) : percent(pct)]);
}

function limitRows({ assessment, market, materials }: SheetInput): string[][] {
  const names = new Map(materials.map(({ id, name }) => [id, name]));
  return assessment.limits
    .filter((limit) => limit.market === market && binds(limit.force))
    .map(({ subject, highPct, maxPct, verdict, source }) => [
      names.get(subject.id) ?? spoken(subject.id),
      `${percent(highPct)} of at most ${percent(maxPct)}`,
      verdict,
      source ?? '',
    ]);
}

/** The sheet as PDF. */
export function productSheetPdf(input: SheetInput): Promise<Uint8Array> {
  return flowingPdf(`${input.name}, product sheet`, (document) => draw(document, input));
}

function draw(document: Document, input: SheetInput): void {
  const { content, standing, assessment, market } = input;
  set(document, 'display', 18).text(input.name);
  set(document, 'text', 9).text(
    `${input.identity}. Product sheet for ${market}, ${input.day}, rulebook ${input.rulebookEdition}. Made from the records on file; it is for a qualified assessor to judge.`,
  );
  heading(
    document,
    input.inRanges ? 'Composition of the fresh batter, in ranges' : 'Composition of the fresh batter',
  );
  rows(document, [50, 190, 450], formulaRows(input));
  const { superfat, masses } = assessment;
  rows(
    document,
    [50],
    [
      [
        `Superfat in effect ${superfat.effectivePct === null ? 'none' : percent(superfat.effectivePct)}; cured ${percent((100 * masses.curedG) / masses.pourG)} of the pour.`,
      ],
    ],
  );
  heading(document, 'Held against these limits');
  const limits = limitRows(input);
  rows(document, [50, 160, 290, 340], limits.length > 0 ? limits : [['No limit on file speaks of it.']]);
  heading(document, 'Papers that counted');
  const papers = input.papers.map(({ material, number, issuer, issuedOn }) => [
    material,
    number,
    issuer,
    issuedOn,
  ]);
  rows(document, [50, 190, 300, 450], papers.length > 0 ? papers : [['None on file.']]);
  heading(document, 'Scent allergens, percent of the cured bar');
  const named = assessment.declarables.filter((row) => row.market === market && row.highPct > 0);
  rows(
    document,
    [50, 250, 400],
    named.map(({ name, lowPct, highPct, declare }) => [
      name,
      `${percent(lowPct)} to ${percent(highPct)}`,
      declare ? 'named on the label' : 'under the threshold or not asked for',
    ]),
  );
  heading(document, 'On the label');
  rows(document, [50], [[content.front.net], ...content.info.map(({ text }) => [text])]);
  heading(document, 'What it is there');
  rows(document, [50], [[[standing.regime, ...standing.because, ...standing.assumed].join('; ')]]);
}
