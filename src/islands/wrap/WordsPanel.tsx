import { evidenceAsked, evidenceNoted, strayEvidence, withEvidence } from '../../core/claims/evidence';
import type { Fact } from '../../core/claims/facts';
import { unknownOf } from '../../core/claims/words';
import type { ClaimFinding } from '../../core/claims/types';
import {
  countryAsks,
  LABEL_LANGUAGE_NAMES,
  LABEL_LANGUAGES,
  type LabelLanguage,
} from '../../core/labels/languages';
import { MARKETS } from '../../core/formula/types';
import type { Words } from '../../core/labels/content';
import { CLAIM_SOURCE } from '../../rulebook/claims';
import { CLAIM_CLASS_WORDS, dayInWords, FACT_STANDING_WORDS, FACT_WORDS } from '../../ui/words';
import { newStep } from '../../ui/step';
import { useDesk } from './context';
import { OwnPhrases } from './OwnPhrases';
import { OtherReading, Sentences } from './Sentences';

type WordsKey = 'identity' | 'use' | 'cautions';

const WORDS_LABELS: Record<WordsKey, string> = {
  identity: 'What it is',
  use: 'How to use it',
  cautions: 'Cautions',
};

/** The languages in which words are asked for: what labels in the EU speak, Canada's two, and any that stand there. */
function useLanguages(of: WordsKey): LabelLanguage[] {
  const { wrap, data, country } = useDesk();
  const there = country === null ? [] : countryAsks(country).languages;
  return LABEL_LANGUAGES.filter(
    (language) =>
      language === 'en' ||
      language === 'fr' ||
      data.labelLanguages.includes(language) ||
      there.includes(language) ||
      wrap[of][language]?.trim(),
  );
}

function InEveryLanguage({ of }: { of: WordsKey }) {
  const { wrap, data, change } = useDesk();
  const languages = useLanguages(of);
  const takeUsual = () => {
    const usual = languages.map((language) => [language, data.proposedCautions[language]] as const);
    change({ cautions: Object.fromEntries(usual) }, 'proposed cautions');
  };
  const set = (language: LabelLanguage, text: string) => {
    const words: Words = { ...wrap[of], [language]: text };
    change({ [of]: words }, `${of} ${language}`);
  };
  return (
    <fieldset className="grid grid-cols-2 gap-3">
      <legend className="font-medium">{WORDS_LABELS[of]}</legend>
      {languages.map((language) => (
        <label key={language}>
          <span className="eyebrow block">{LABEL_LANGUAGE_NAMES[language]}</span>
          <textarea
            className="field w-full border border-line"
            lang={language}
            rows={of === 'identity' ? 1 : 3}
            value={wrap[of][language] ?? ''}
            onChange={(event) => set(language, event.target.value)}
          />
        </label>
      ))}
      {of === 'cautions' && (
        <p className="col-span-2">
          <button type="button" className="cursor-pointer text-ultra underline" onClick={takeUsual}>
            Take the usual cautions for this formula
          </button>
        </p>
      )}
    </fieldset>
  );
}

/** Markets in which a claim falls in each class, told together. */
function byClass(claim: ClaimFinding): string {
  const classes = new Map<string, string[]>();
  for (const market of MARKETS)
    classes.set(claim.class[market], [...(classes.get(claim.class[market]) ?? []), market]);
  return [...classes]
    .map(([one, markets]) => {
      const words = CLAIM_CLASS_WORDS[one as keyof typeof CLAIM_CLASS_WORDS];
      return markets.length === MARKETS.length ? words : `${words} in ${markets.join(', ')}`;
    })
    .join('; ');
}

function factOf(claim: ClaimFinding, facts: readonly Fact[]): string | null {
  const fact = facts.find(({ id }) => id === claim.fact);
  if (!fact) return null;
  const because = fact.because.length > 0 ? `: ${fact.because.join(', ')}` : '';
  return `${FACT_STANDING_WORDS[fact.standing]}${because}`;
}

/** Evidence noted for words that the text no longer has: kept until the maker takes it away. */
function StrayEvidence() {
  const { wrap, claims, change } = useDesk();
  const notes = wrap.evidence ?? [];
  return strayEvidence(notes, claims).map(({ words, says }) => (
    <p key={words} className="py-0.5 text-soft">
      Evidence is noted for “{words}”, which these words no longer say: {says}.{' '}
      <button
        type="button"
        className="cursor-pointer text-ultra underline"
        onClick={() => change({ evidence: withEvidence(notes, words, '') }, newStep('evidence'))}
      >
        Take the note away
      </button>
    </p>
  ));
}

/** What a claim wants as evidence where the bar is sold, and where the maker has it. */
function Evidence({ claim }: { claim: ClaimFinding }) {
  const { wrap, facts, market, change } = useDesk();
  const asked = evidenceAsked(claim, market, facts);
  if (asked === null) return null;
  const notes = wrap.evidence ?? [];
  return (
    <label className="block pt-1 pb-0.5">
      <span className="text-soft">
        Evidence it wants ({market}): {asked}.
      </span>
      <input
        className="field mt-0.5 w-full border border-line"
        aria-label={`Where the evidence for “${claim.words}” is`}
        placeholder="Where it is on file: what, of which day, in which folder"
        maxLength={200}
        value={evidenceNoted(notes, claim.words) ?? ''}
        onChange={(event) =>
          change(
            { evidence: withEvidence(notes, claim.words, event.target.value) },
            `evidence ${claim.words}`,
          )
        }
      />
    </label>
  );
}

function Claims() {
  const { wrap, claims: found, sentences, facts, change } = useDesk();
  const claims = found.filter((claim) => MARKETS.some((market) => claim.class[market] !== 'plain'));
  if (claims.length === 0 && unknownOf(sentences).length === 0)
    return (
      <p className="text-soft">
        Nothing was found in these words that promises more than a soap that cleans.
      </p>
    );
  if (claims.length === 0) return null;
  const replace = (claim: ClaimFinding) => {
    for (const key of ['description', 'back'] as const) {
      const at = wrap[key].indexOf(claim.words);
      if (at < 0) continue;
      const text = wrap[key].slice(0, at) + claim.plainer + wrap[key].slice(at + claim.words.length);
      change({ [key]: text.replace(/ {2,}/g, ' ').replace(/ ([.,;])/g, '$1') }, newStep('plainer'));
      return;
    }
  };
  const isInText = (claim: ClaimFinding) =>
    wrap.description.includes(claim.words) || wrap.back.includes(claim.words);
  return (
    <ul>
      {claims.map((claim) => {
        const fact = factOf(claim, facts);
        const grave = Object.values(claim.class).includes('medicine') || fact?.startsWith('contradicted');
        return (
          <li key={`${claim.from} ${claim.phrase}`} className="border-b border-hair py-1 leading-snug">
            <span className={grave ? 'font-semibold' : 'font-medium'}>“{claim.words}”</span> {byClass(claim)}
            {fact && <>, {fact}</>}. <span className="text-soft">{claim.why}</span>
            {isInText(claim) && (
              <>
                {' '}
                <button
                  type="button"
                  className="cursor-pointer text-ultra underline"
                  aria-label={
                    claim.plainer
                      ? `Write “${claim.plainer}” for “${claim.words}”`
                      : `Leave out “${claim.words}”`
                  }
                  onClick={() => replace(claim)}
                >
                  {claim.plainer ? `Write “${claim.plainer}”` : 'Leave it out'}
                </button>
              </>
            )}
            <OtherReading claim={claim} />
            <Evidence claim={claim} />
          </li>
        );
      })}
    </ul>
  );
}

/** The bar's words as the maker types them, every claim classed, and the facts of the formula. */
export function WordsPanel() {
  const { wrap, facts, change } = useDesk();
  return (
    <section aria-label="Words" className="grid gap-2 py-2">
      <label>
        <span className="font-medium">Description, for the shop</span>
        <textarea
          className="field w-full border border-line"
          rows={3}
          value={wrap.description}
          onChange={(event) => change({ description: event.target.value }, 'description')}
        />
      </label>
      <label>
        <span className="font-medium">Own words on the label</span>
        <textarea
          className="field w-full border border-line"
          rows={2}
          value={wrap.back}
          onChange={(event) => change({ back: event.target.value }, 'back')}
        />
      </label>
      <section aria-label="Claims" aria-live="polite">
        <h2 className="text-lg">What these words claim</h2>
        <Claims />
        <Sentences />
        <StrayEvidence />
        <OwnPhrases />
        <p className="eyebrow">
          {CLAIM_SOURCE.source}, as of {dayInWords(CLAIM_SOURCE.asOf)}.
        </p>
      </section>
      <InEveryLanguage of="identity" />
      <InEveryLanguage of="cautions" />
      <InEveryLanguage of="use" />
      <section aria-label="Facts">
        <h2 className="text-lg">What the formula says</h2>
        <ul className="font-narrow">
          {facts
            .filter(({ id }) => id !== 'handmade' && id !== 'crueltyFree')
            .map(({ id, standing, because }) => (
              <li key={id}>
                <span className="font-medium">{FACT_WORDS[id]}</span> {FACT_STANDING_WORDS[standing]}
                {because.length > 0 && <span className="text-soft">: {because.join(', ')}</span>}
              </li>
            ))}
        </ul>
      </section>
    </section>
  );
}
