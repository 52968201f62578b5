/**
 * What a request of the right shape can still get wrong: names that lead nowhere, units that cannot be
 * reckoned, shares that do not add up. Every fault is told with the path to its field and the remedy.
 */
import { isFatty } from './fats';
import { unitRule } from '../quantities/units';
import type { AssessmentRequest, Formula, Line, Material, RequestError, Stored } from './types';

/** Portions' shares have to add up to 1 within this. */
const SHARES_TOLERANCE = 1e-6;

type Report = (path: string, code: string, message: string) => void;

function reportDuplicates(
  items: readonly { id: string }[],
  path: string,
  what: string,
  report: Report,
): void {
  const seen = new Set<string>();
  items.forEach(({ id }, index) => {
    if (seen.has(id)) {
      report(
        `${path}.${index}.id`,
        'duplicate',
        `There is another ${what} with the id "${id}". Give each its own.`,
      );
    }
    seen.add(id);
  });
}

function checkLineMaterial(line: Line, material: Material, path: string, report: Report): void {
  const rule = unitRule(line.amount.unit);
  if (!rule) {
    report(`${path}.amount.unit`, 'unknown-unit', `"${line.amount.unit}" is not a unit known here.`);
    return;
  }
  if (rule.byVolume && !((material.bulkDensity ?? 0) > 0)) {
    const remedy = 'Say what a spoonful weighs, in grams per millilitre, or weigh it.';
    report(
      `${path}.amount.unit`,
      'density-missing',
      `Nothing says what a spoonful of ${material.name} weighs. ${remedy}`,
    );
  }
  if (isFatty(material) && material.saponification == null) {
    const remedy =
      'Give its saponification value: grams of sodium hydroxide for a gram, 0 if none of it turns to soap.';
    report(
      `${path}.material`,
      'saponification-missing',
      `${material.name} does not say how it saponifies. ${remedy}`,
    );
  }
}

function checkLine(formula: Formula, line: Line, material: Material, path: string, report: Report): void {
  checkLineMaterial(line, material, path, report);
  const base = unitRule(line.amount.unit)?.base;
  if (base === 'fats' && isFatty(material) && !((formula.fatsMassG ?? 0) > 0)) {
    const remedy = 'Say how many grams of fats in all, or give this line in grams.';
    report(
      'formula.fatsMassG',
      'fats-mass-missing',
      `${material.name} is a share of the fats, and nothing says how much they are. ${remedy}`,
    );
  }
  if (base === 'liquid' && !formula.liquid) {
    const remedy = 'Say how much liquid in all, or give this line in grams.';
    report(`${path}.amount.unit`, 'liquid-missing', `The formula states no total liquid. ${remedy}`);
  }
  if (line.portion != null && !(formula.portions ?? []).some(({ id }) => id === line.portion)) {
    const remedy = 'Name one of the formula’s portions or leave it out.';
    report(`${path}.portion`, 'unknown-portion', `There is no portion "${line.portion}". ${remedy}`);
  }
}

function checkPortions(formula: Formula, report: Report): void {
  const portions = formula.portions ?? [];
  if (portions.length === 0) return;
  reportDuplicates(portions, 'formula.portions', 'portion', report);
  const total = portions.reduce((sum, { share }) => sum + share, 0);
  if (Math.abs(total - 1) > SHARES_TOLERANCE) {
    report(
      'formula.portions',
      'shares-not-one',
      `The portions’ shares add up to ${total}. Make them add up to 1.`,
    );
  }
}

function checkAlkali({ alkali }: Formula, report: Report): void {
  const hasSuperfat = alkali.superfatPct != null;
  const hasMass = alkali.massG != null;
  if (hasSuperfat === hasMass) {
    const message = hasMass ? 'Give superfat or lye, not both.' : 'Give superfat or lye, one of the two.';
    report('formula.alkali', hasMass ? 'alkali-twice' : 'alkali-missing', message);
  }
}

function checkCure({ cure }: Formula, report: Report): void {
  if (cure?.residualWaterPct != null && cure.massRatio != null) {
    report(
      'formula.cure',
      'cure-twice',
      'Give the water in the cured bar, or what of the pour it weighs; not both.',
    );
  }
}

function checkMaterials(materials: readonly Material[], report: Report): void {
  reportDuplicates(materials, 'materials', 'material', report);
  materials.forEach((material, i) => {
    (material.constituents ?? []).forEach(({ lowPct, typicalPct, highPct }, c) => {
      if (lowPct <= typicalPct && typicalPct <= highPct) return;
      const message = 'The range of a constituent goes from its lowest over its usual to its highest share.';
      report(`materials.${i}.constituents.${c}`, 'range-order', message);
    });
  });
}

/** Looks up every line's material, inline ones first. Unknown ones are reported and left undefined. */
function findMaterials(request: AssessmentRequest, stored: Stored, report: Report): (Material | undefined)[] {
  const inline = new Map((request.materials ?? []).map((material) => [material.id, material]));
  return request.formula.lines.map((line, i) => {
    const material = inline.get(line.material) ?? stored.material(line.material);
    if (!material) {
      const remedy = 'Send it under materials, or name one that is stored.';
      const message = `No material "${line.material}" is sent or stored. ${remedy}`;
      report(`formula.lines.${i}.material`, 'unknown-material', message);
    }
    return material;
  });
}

export type Checked = { ok: true; materials: Material[] } | { ok: false; errors: RequestError[] };

/** Checks a request of the right shape and finds the material of every line. */
export function checkRequest(request: AssessmentRequest, stored: Stored): Checked {
  const errors: RequestError[] = [];
  const report: Report = (path, code, message) => {
    if (!errors.some((e) => e.path === path && e.code === code)) errors.push({ path, code, message });
  };
  const { formula } = request;
  if (formula.lines.length === 0) {
    report('formula.lines', 'empty', 'The formula has no lines. Add at least one fat.');
    return { ok: false, errors };
  }
  checkMaterials(request.materials ?? [], report);
  reportDuplicates(formula.lines, 'formula.lines', 'line', report);
  checkPortions(formula, report);
  checkAlkali(formula, report);
  checkCure(formula, report);
  const materials = findMaterials(request, stored, report);
  formula.lines.forEach((line, i) => {
    const material = materials[i];
    if (material) checkLine(formula, line, material, `formula.lines.${i}`, report);
  });
  if (errors.length > 0) return { ok: false, errors };
  return { ok: true, materials: materials as Material[] };
}
