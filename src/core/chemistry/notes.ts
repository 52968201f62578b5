/** Notes on lye, liquid and other things the maker must see before pouring. */
import type { Note } from '../formula/answer';
import type { Balance } from '../loads/balance';
import { DEFAULT_RESIDUAL_WATER_PCT, isAlwaysCommon, type Plan } from '../loads/plan';

/** Below this effective superfat, percent, a weighing slip can leave free lye (assessment page, step 6). */
const NEAR_LYE_HEAVY_PCT = 2;
/** Lines of liquid may miss the stated total by this share before it is said (assessment page, step 3). */
const LIQUID_MISMATCH = 0.005;
const SHARES_OFF_PCT = 0.5;

export interface Superfat {
  nominalPct: number | null;
  effectivePct: number | null;
}

/**
 * The superfat as the recipe states it, and as it is once the fat in milks and the fats after the cook count.
 * Null where there is no fat to saponify.
 */
export function superfat(batch: Balance): Superfat {
  const forFats = batch.alkaliPureG - batch.acidG;
  const all = batch.cookDemandG + batch.milkDemandG + batch.laterDemandG;
  return {
    nominalPct: batch.cookDemandG > 0 ? 100 * (1 - forFats / batch.cookDemandG) : null,
    effectivePct: all > 0 ? 100 * (1 - forFats / all) : null,
  };
}

function grams(massG: number): string {
  return `${massG.toFixed(1)} g`;
}

function lyeNotes(batch: Balance, { nominalPct, effectivePct }: Superfat): Note[] {
  const make = (code: string, severity: Note['severity'], text: string): Note[] => [
    { code, severity, line: null, text },
  ];
  const excess = batch.alkaliPureG > batch.acidG;
  if (effectivePct === null ? excess : effectivePct < 0) {
    return make(
      'lye-heavy',
      'danger',
      'More lye than the fats can take up: this bar would burn skin. Do not pour; check the lye figure.',
    );
  }
  if (effectivePct !== null && effectivePct < NEAR_LYE_HEAVY_PCT) {
    const text = `Only ${effectivePct.toFixed(1)} % of the fats stay free: a small slip at the scale leaves free lye.`;
    return make('danger-near', 'caution', text);
  }
  if (nominalPct !== null && nominalPct < 0) {
    const text =
      'The lye is more than the fats in the pot take up; it counts on fat that is added otherwise.';
    return make('lye-relies-on-additions', 'caution', text);
  }
  return [];
}

function liquidNotes(plan: Plan, batch: Balance): Note[] {
  const notes: Note[] = [];
  let poured = 0;
  let withLye = 0;
  plan.lines.forEach(({ stage }, i) => {
    if (stage === 'liquid') withLye += batch.massG[i]!;
    if (stage === 'liquid' || stage === 'heldBack') poured += batch.massG[i]!;
  });
  if (plan.formula.liquid && Math.abs(poured - batch.liquidG) > LIQUID_MISMATCH * batch.liquidG) {
    const text = `The liquids add up to ${grams(poured)}, the formula asks for ${grams(batch.liquidG)}.`;
    notes.push({ code: 'liquid-mismatch', severity: 'caution', line: null, text });
  }
  const forLye = Math.min(withLye, batch.liquidG);
  if (forLye < batch.alkaliG) {
    const text = `${grams(forLye)} of liquid is less than the ${grams(batch.alkaliG)} of lye: the lye will not dissolve.`;
    notes.push({ code: 'liquid-under-alkali', severity: 'danger', line: null, text });
  }
  return notes;
}

function lineNotes(plan: Plan): Note[] {
  const notes: Note[] = [];
  plan.lines.forEach((line, i) => {
    const material = plan.materials[i]!;
    const add = (code: string, severity: Note['severity'], text: string) =>
      notes.push({ code, severity, line: line.id, text });
    if (material.kind === 'alkali') {
      add(
        'alkali-line',
        'danger',
        `${material.name} stands as a line; its lye is not in the superfat. State it as alkali.`,
      );
    }
    if (line.portion != null && isAlwaysCommon(material)) {
      add(
        'portion-ignored',
        'info',
        `${material.name} belongs to the common batter and is in every portion.`,
      );
    }
    const shares = (material.inci ?? []).reduce((sum, part) => sum + part.sharePct, 0);
    if (!material.inci?.length) {
      add(
        'inci-missing',
        'caution',
        `${material.name} has no ingredient name on file; its own name stands in the list.`,
      );
    } else if (Math.abs(shares - 100) > SHARES_OFF_PCT) {
      add(
        'inci-shares',
        'caution',
        `The ingredient names of ${material.name} add up to ${shares} %, not 100 %.`,
      );
    }
  });
  return notes;
}

/** Every note of a batch, gravest first. */
export function batchNotes(plan: Plan, batch: Balance, fat: Superfat): Note[] {
  const notes = [...lyeNotes(batch, fat), ...liquidNotes(plan, batch), ...lineNotes(plan)];
  const { cure } = plan.formula;
  if (cure?.residualWaterPct == null && cure?.massRatio == null) {
    const text = `No cure is stated; a dry bar with ${DEFAULT_RESIDUAL_WATER_PCT} % water left is taken.`;
    notes.push({ code: 'cure-assumed', severity: 'info', line: null, text });
  }
  const order = { danger: 0, caution: 1, info: 2 };
  return notes.sort((a, b) => order[a.severity] - order[b.severity]);
}
