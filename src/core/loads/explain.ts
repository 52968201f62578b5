/** The chain of arithmetic behind a limit, as data that a screen or a page can show step by step. */
import type { ExplainedTerm, Explanation } from '../formula/answer';
import type { Balance } from './balance';
import type { Finding } from './limits';
import type { Plan } from './plan';
import { basisMass, partInSection, WHOLE, type Section, type Subjects } from './sections';

function terms(plan: Plan, subjects: Subjects, batch: Balance, finding: Finding): ExplainedTerm[] {
  const explained: ExplainedTerm[] = [];
  for (let e = 0; e < subjects.line.length; e++) {
    if (subjects.subject[e] !== finding.k) continue;
    const i = subjects.line[e]!;
    const massG = batch.massG[i]! * partInSection(plan, finding.section, i);
    if (!(massG > 0)) continue;
    const highG = massG * (1 + plan.doubtHigh[i]!);
    explained.push({
      line: plan.lines[i]!.id,
      material: plan.materials[i]!.name,
      amount: plan.lines[i]!.amount,
      massG,
      lowG: massG * (1 + plan.doubtLow[i]!),
      highG,
      lowSharePct: 100 * subjects.low[e]!,
      sharePct: 100 * subjects.typical[e]!,
      highSharePct: 100 * subjects.high[e]!,
      broughtG: massG * subjects.typical[e]!,
      broughtHighG: highG * subjects.high[e]!,
    });
  }
  return explained;
}

function basisSteps(section: Section, basis: Explanation['basis']): Explanation['basisSteps'] {
  if (basis === 'fats') return [{ what: 'fats', massG: section.fatsG }];
  const pour = { what: 'pour' as const, massG: section.pourG };
  if (basis === 'pour') return [pour];
  return [
    pour,
    { what: 'water', massG: section.waterG },
    { what: 'dry', massG: section.pourG - section.waterG },
    { what: 'cured', massG: section.curedG },
  ];
}

/** Explains a limit's finding: every line's term, their sum, the basis, and the concentration they lead to. */
export function explain(
  plan: Plan,
  subjects: Subjects,
  batch: Balance,
  all: readonly Section[],
  finding: Finding,
): Explanation {
  const section = all[finding.section]!;
  const { limit, markets } = finding.rule;
  const shift = limit.basis === 'fats' ? section.highFatShift : section.highShift;
  return {
    id: limit.id,
    subject: { ...limit.subject },
    markets: [...markets],
    portion: finding.section === WHOLE ? null : plan.portions[finding.section - 1]!.id,
    terms: terms(plan, subjects, batch, finding),
    subjectG: section.nominal[finding.k]!,
    subjectHighG: section.high[finding.k]!,
    basis: limit.basis,
    basisSteps: basisSteps(section, limit.basis),
    basisHighG: basisMass(section, limit.basis) + shift[finding.k]!,
    nominalPct: finding.found.nominalPct,
    highPct: finding.found.highPct,
    maxPct: limit.maxPct,
    verdict: finding.verdict,
    force: limit.force,
    source: limit.source ?? null,
  };
}
