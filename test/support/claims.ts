/** What a text claims at its gravest. */
import { findClaims } from '../../src/core/claims/read';
import type { ClaimClass } from '../../src/core/claims/types';
import type { Market } from '../../src/core/formula/types';
import { claimReader } from '../../src/rulebook/claims';

const ORDER: ClaimClass[] = ['plain', 'composition', 'cosmetic', 'absolute', 'medicine'];
export function gravest(text: string, market: Market): ClaimClass {
  return findClaims(text, claimReader())
    .map((finding) => finding.class[market])
    .reduce<ClaimClass>((worst, one) => (ORDER.indexOf(one) > ORDER.indexOf(worst) ? one : worst), 'plain');
}
