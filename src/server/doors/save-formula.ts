/** The door of saving a formula. */
import type { Formula } from '../../core/formula/types';
import { FormulaDoor } from './assessment-request';
import { Nested } from './fields';
import { Revision } from './revision';

export class SaveFormulaDoor {
  @Revision() revision!: number;
  @Nested(() => FormulaDoor) formula!: FormulaDoor;
}

export interface SaveFormula {
  revision: number;
  formula: Formula;
}
