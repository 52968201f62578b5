/** The door of saving a formula. */
import { IsInt, Min } from 'class-validator';
import type { Formula } from '../../core/formula/types';
import { FormulaDoor } from './assessment-request';
import { Nested } from './fields';

const REVISION = {
  message: 'Give the revision that the change was made from.',
  context: { code: 'revision' },
};

export class SaveFormulaDoor {
  @IsInt(REVISION) @Min(1, REVISION) revision!: number;
  @Nested(() => FormulaDoor) formula!: FormulaDoor;
}

export interface SaveFormula {
  revision: number;
  formula: Formula;
}
