/** Whether the lye is in the fats. Pure. */
import type { Batch } from './types';

/** The step in which the lye goes into the fats. */
export const JOIN = 'join';

/** Whether everything can still grow in proportion: not once the lye is in the fats. */
export const canGrow = ({ stepsDone }: Pick<Batch, 'stepsDone'>): boolean =>
  stepsDone.every(({ step }) => step !== JOIN);
