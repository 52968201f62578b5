/** Which papers of a material count. */
import { governingPaper } from '../../core/paperwork/governing';
import type { MaterialDocument, PapersStanding } from '../../core/records/papers';
import { rulebook } from '../../rulebook';

/** Which papers count for a material on a day. */
export function papersStanding(documents: readonly MaterialDocument[], onDate: string): PapersStanding {
  const { newestEdition } = rulebook().scentStandard;
  const counting = (type: MaterialDocument['type']) => governingPaper(documents, type, onDate, newestEdition);
  return { certificate: counting('certificate'), allergens: counting('allergens') };
}
