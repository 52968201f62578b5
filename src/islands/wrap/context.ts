/** What every part of the wrap's screen shares, and what follows from it on the spot. */
import { createContext, useContext, useMemo } from 'react';
import type { Fact } from '../../core/claims/facts';
import { findClaims } from '../../core/claims/find';
import type { ClaimFinding, OwnPhrase } from '../../core/claims/types';
import type { Market } from '../../core/formula/types';
import {
  checkItems,
  colourFindings,
  type CheckedItem,
  type ColourFinding,
} from '../../core/labels/checklist';
import type { Country } from '../../core/labels/languages';
import { LONGEST_BEST_BEFORE_MONTHS } from '../../core/labels/content';
import { netFromBars } from '../../core/labels/heights';
import { standingIn, type Standing } from '../../core/labels/standing';
import { colourKnown, rulebook } from '../../rulebook';
import { claimPatterns } from '../../rulebook/claims';
import { marketRules, type MarketItem } from '../../rulebook/markets';
import type { Wrap, WrapData } from '../../core/records/wrap';

export interface Desk {
  data: WrapData;
  wrap: Wrap;
  market: Market;
  /** The country that labels for the EU are looked at for; null for all that the house speaks to. */
  country: Country | null;
  claims: readonly ClaimFinding[];
  facts: readonly Fact[];
  ownPhrases: readonly OwnPhrase[];
  setOwnPhrases: (phrases: OwnPhrase[]) => void;
  change: (part: Partial<Wrap>, key: string) => void;
  flush: () => Promise<boolean>;
}

export const DeskContext = createContext<Desk | null>(null);

export function useDesk(): Desk {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error('Used outside the wrap.');
  return desk;
}

/** Every claim in the wrap's words, and the facts of the formula. */
export function useFindings(data: WrapData, wrap: Wrap, ownPhrases: readonly OwnPhrase[]) {
  const words = [
    data.product.name,
    wrap.description,
    wrap.back,
    ...Object.values(wrap.identity),
    ...Object.values(wrap.use),
  ].join('\n');
  const claims = useMemo(() => findClaims(words, claimPatterns(ownPhrases)), [words, ownPhrases]);
  return { claims, facts: data.facts };
}

export interface MarketView {
  standing: Standing;
  colours: ColourFinding[];
  items: CheckedItem<MarketItem>[];
}

/** What the bar is in a market and what that asks for. */
export function marketView(
  { data, wrap, claims }: Pick<Desk, 'data' | 'wrap' | 'claims'>,
  market: Market,
): MarketView {
  const standing = standingIn(market, claims, data.assessment);
  const colours = colourFindings(data.materials, (name) => colourKnown(rulebook(), name, market));
  const durability = wrap.durability;
  const items = checkItems(marketRules(market).items, {
    market,
    standing,
    assessment: data.assessment,
    claims,
    evidence: wrap.evidence ?? [],
    colours,
    responsible: data.maker ? [data.maker.name, ...data.maker.addressLines] : [],
    netMassG:
      data.batch?.netMassG ?? netFromBars(wrap.weighedG) ?? wrap.netMassG ?? Math.floor(data.predictedBarG),
    batchCode: data.batch?.code ?? wrap.batchCode,
    durabilityStated:
      durability !== null &&
      (durability.months > LONGEST_BEST_BEFORE_MONTHS || Boolean(data.batch?.endsOn ?? durability.endsOn)),
    identity: wrap.identity,
    cautions: wrap.cautions,
  });
  return { standing, colours, items };
}
