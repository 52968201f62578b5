/** The revision that a change was made from; every change that may meet another names it. */
import { IsInt, Min } from 'class-validator';
import { all } from './fields';

const RULE = { message: 'Give the revision that the change was made from.', context: { code: 'revision' } };

/** A whole number from 1. */
export function Revision(): PropertyDecorator {
  return all(IsInt(RULE), Min(1, RULE));
}

/** A whole number from 0, which stands before the first save. */
export function FirstRevision(): PropertyDecorator {
  return all(IsInt(RULE), Min(0, RULE));
}
