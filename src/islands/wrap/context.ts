/** What every part of the wrap's screen shares, and what follows from it on the spot. */
import { createContext, useContext, useMemo } from 'react';
import type { Fact } from '../../core/claims/facts';
import { readText, type ReadSentence } from '../../core/claims/read';
import type { ClaimFinding, OwnPhrase } from '../../core/claims/types';
import { ownSentences, unknownOf, wordsOfWrap } from '../../core/claims/words';
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
import { claimReader } from '../../rulebook/claims';
import { marketRules, type MarketItem } from '../../rulebook/markets';
import type { Wrap, WrapData } from '../../core/records/wrap';

/** The house's own phrases as they stand on file. */
export interface StoredPhrases {
  phrases: OwnPhrase[];
  revision: number;
}

export interface Desk {
  data: WrapData;
  wrap: Wrap;
  market: Market;
  /** The country that labels for the EU are looked at for; null for all that the house speaks to. */
  country: Country | null;
  claims: readonly ClaimFinding[];
  /** The maker's own sentences, with how each was read. */
  sentences: readonly ReadSentence[];
  facts: readonly Fact[];
  phrases: StoredPhrases;
  setPhrases: (phrases: StoredPhrases) => void;
  change: (part: Partial<Wrap>, key: string) => void;
  flush: () => Promise<boolean>;
}

export const DeskContext = createContext<Desk | null>(null);

export function useDesk(): Desk {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error('Used outside the wrap.');
  return desk;
}

/** Every claim in the wrap's words, how each sentence of the maker's own was read, and the facts of the formula. */
export function useFindings(data: WrapData, wrap: Wrap, ownPhrases: readonly OwnPhrase[]) {
  const words = wordsOfWrap(data.product, wrap);
  const read = useMemo(() => readText(words, claimReader(ownPhrases)), [words, ownPhrases]);
  const sentences = ownSentences(wrap, data.product, read.sentences);
  return { claims: read.claims, sentences, facts: data.facts };
}

export interface MarketView {
  standing: Standing;
  colours: ColourFinding[];
  items: CheckedItem<MarketItem>[];
}

/** What the bar is in a market and what that asks for. */
export function marketView(
  { data, wrap, claims, sentences }: Pick<Desk, 'data' | 'wrap' | 'claims' | 'sentences'>,
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
    unknown: unknownOf(sentences),
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
