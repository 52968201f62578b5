/** What comes from a file instead of a screen, held against the same doors. */
import { FormulaDoor, MaterialDoor } from './assessment-request';
import { checkShape } from './shape';
import type { Door } from './structure';

function why(door: Door, value: unknown): string | null {
  const shaped = checkShape(door, value);
  if (shaped.ok) return null;
  const { path, message } = shaped.errors[0]!;
  return `${path}: ${message}`;
}

/** What is wrong with a formula, or null. */
export const checkFormula = (value: unknown): string | null => why(FormulaDoor, value);

/** What is wrong with a material, or null. */
export const checkMaterial = (value: unknown): string | null => why(MaterialDoor, value);
