/** Where the steps of a day are written down, with what each weighs. */
import { vesselOf, weighWords } from './day-words';
import type { Part, Premix, Premixes } from './premix';
import type { Weights } from '../quantities/say';
import type { Load, Role } from './roles';
import type { Bucket, RunSheet, RunStep, Weigh } from './run-sheet-types';

/** Usual times, minutes. */
export const TAKES = {
  gear: 10,
  weigh: 2,
  melt: 15,
  dissolve: 5,
  cool: 45,
  join: 5,
  cook: 90,
  pour: 10,
} as const;

export interface Day {
  loads: readonly Load[];
  premixes: Premixes;
  portions: readonly { id: string; share: number }[];
  isHot: boolean;
  alkali: { name: string; massG: number };
  stock: RunSheet['lyeStock'];
  bucket: Bucket | null;
  /** Grams of a line that a lye stock or a bucket of fats brings already, by line id. */
  broughtG: ReadonlyMap<string, number>;
  /** What the house weighs in. */
  weights: Weights;
  /** How far a weighing may be off. */
  tolerance: (line: string, massG: number) => Pick<Weigh, 'underG' | 'overG'>;
}

type Draft = Partial<RunStep> & Pick<RunStep, 'id' | 'place' | 'title' | 'how'>;

/** Writes steps down one after the other. */
export class DayBook {
  readonly steps: RunStep[] = [];

  constructor(readonly day: Day) {}

  add(draft: Draft): string {
    this.steps.push({
      why: '',
      cautions: [],
      weigh: [],
      temperatureC: null,
      after: [],
      minutes: null,
      ...draft,
    });
    return draft.id;
  }

  weighing({ line, material }: Load, massG: number, vessel: string, portion: string | null): Weigh {
    const { id, name } = material;
    return {
      line: line.id,
      material: id,
      name,
      massG,
      ...this.day.tolerance(line.id, massG),
      vessel,
      portion,
    };
  }

  /** What of a load is still to be weighed once its premixes and the stock have had theirs. */
  left({ line, massG }: Load): number {
    const rest = massG - (this.day.premixes.takenG.get(line.id) ?? 0) - (this.day.broughtG.get(line.id) ?? 0);
    return rest > massG * NOTHING ? rest : 0;
  }

  /** A step that weighs one load; nothing where nothing of it is left to weigh. */
  weigh(
    prefix: string,
    place: RunStep['place'],
    { load, massG }: Part,
    after: string[],
    portion = load.portion,
  ) {
    if (massG <= 0) return [];
    const { id } = load.line;
    return [
      this.add({
        id: `${prefix}-${id}${portion !== null && load.portion === null ? `-${portion}` : ''}`,
        place,
        ...weighWords(load, massG, { portion, weights: this.day.weights }),
        weigh: [this.weighing(load, massG, vesselOf(load), portion)],
        after,
        minutes: TAKES.weigh,
      }),
    ];
  }

  weighAll(prefix: string, place: RunStep['place'], role: Role, after: string[]): string[] {
    return this.common(role).flatMap((load) =>
      this.weigh(prefix, place, { load, massG: this.left(load) }, after),
    );
  }

  /** Loads of the common batter with a role, those already in a premix left out. */
  common(role: Role): Load[] {
    return this.of(role, null);
  }

  of(role: Role, portion: string | null): Load[] {
    return this.day.loads.filter(
      (load) => load.role === role && load.portion === portion && !this.premixOf(load),
    );
  }

  premixOf(load: Load): Premix | undefined {
    return this.day.premixes.premixes.find(({ powder }) => powder === load);
  }
}

/** Relative mass under which nothing is left to weigh. */
const NOTHING = 1e-12;
