import { useState } from 'react';
import {
  COUNTRY_CODES,
  countryAsks,
  isTold,
  LABEL_LANGUAGE_NAMES,
  LABEL_LANGUAGES,
  LABEL_WORDS,
  NOT_COVERED,
  OWN_WORDS,
  wordsStanding,
  type Country,
  type LabelLanguage,
  type OwnLabelWords,
  type OwnWord,
} from '../../core/labels/languages';
import type { SettingsData } from '../../core/records/house';
import { Select } from '../../ui/Select';
import { Choices } from './Choices';

type Speech = Pick<SettingsData, 'labelLanguages' | 'labelCountries' | 'labelWords' | 'cardsAt'>;

const WORD_LABELS: Record<OwnWord, string> = {
  best: 'Best used before, with {date} for the month',
  batch: 'Before the batch',
  use: 'Before how to use it',
  cautions: 'Before the cautions',
};

const COUNTRY_NAMES = Object.fromEntries(
  COUNTRY_CODES.map((code) => [code, countryAsks(code).name]),
) as Record<Country, string>;

/** One language's fixed words, the maker's own in their place. */
function OwnWords({ words, put }: { words: OwnLabelWords; put: (words: OwnLabelWords) => void }) {
  const [language, setLanguage] = useState<LabelLanguage>('pl');
  const own = words[language] ?? {};
  const [typed, setTyped] = useState<Partial<Record<OwnWord, string>>>({});
  const valueOf = (key: OwnWord) => typed[key] ?? own[key] ?? '';
  const keep = () => {
    const kept = OWN_WORDS.flatMap((key) =>
      valueOf(key).trim() === '' ? [] : [[key, valueOf(key).trim()] as const],
    );
    const { [language]: _before, ...others } = words;
    put(kept.length > 0 ? { ...others, [language]: Object.fromEntries(kept) } : others);
    setTyped({});
  };
  return (
    <div className="grid max-w-xl gap-2">
      <Select
        label="Fixed words in"
        value={language}
        options={LABEL_LANGUAGES.map((one) => [one, LABEL_LANGUAGE_NAMES[one]] as const)}
        onChange={(one) => {
          setLanguage(one);
          setTyped({});
        }}
      />
      <p className="text-soft">
        {wordsStanding(language) === 'notYet' &&
          `Not read by a native speaker yet${isTold(language) ? '; it is said where a label is issued' : ''}. `}
        Empty: the words that ship.
      </p>
      {OWN_WORDS.map((key) => (
        <label key={key} className="block">
          <span className="eyebrow block">{WORD_LABELS[key]}</span>
          <input
            className="field w-full"
            lang={language}
            placeholder={LABEL_WORDS[language][key]}
            value={valueOf(key)}
            onChange={(event) => setTyped((all) => ({ ...all, [key]: event.target.value }))}
          />
        </label>
      ))}
      <button type="button" className="action justify-self-start" onClick={keep}>
        Keep these words
      </button>
    </div>
  );
}

/** Where the pages of batches stand on the maker's own site. */
function CardsAt({ at, put }: { at: string; put: (at: string) => void }) {
  const [text, setText] = useState(at);
  return (
    <div className="grid gap-1 py-1">
      <label>
        <span className="eyebrow block">Address of the folder that you put them in</span>
        <input
          className="field w-full max-w-xl"
          inputMode="url"
          placeholder="https://your-site/batches"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <p className="text-soft">
        A code on the label then leads to the page of its batch, made under “For the buyer” in the wrap.
      </p>
      <button type="button" className="action justify-self-start" onClick={() => put(text.trim())}>
        Keep this address
      </button>
    </div>
  );
}

/** What labels in the EU speak: countries, further languages, and the maker's own words. */
export function LabelSpeech({ data, put }: { data: Speech; put: (change: Partial<Speech>) => void }) {
  const countries = data.labelCountries ?? [];
  const languages = data.labelLanguages ?? [];
  const named = countries.map((code) => COUNTRY_NAMES[code]);
  const own = Object.keys(data.labelWords ?? {}) as LabelLanguage[];
  return (
    <div className="grid w-full gap-1">
      <details>
        <summary className="cursor-pointer">
          Labels in the EU are for{' '}
          <span className="text-soft">
            {named.length > 0 ? named.join(', ') : 'no country in particular: in whatever words are given'}
          </span>
        </summary>
        <Choices
          legend="Countries, each with the languages it asks for"
          options={COUNTRY_CODES}
          words={COUNTRY_NAMES}
          chosen={countries}
          onChoose={(labelCountries) => put({ labelCountries })}
        >
          {`As commonly told, to be confirmed there. ${NOT_COVERED.map(({ name, why }) => `${name}: ${why}`).join('. ')}.`}
        </Choices>
      </details>
      <details>
        <summary className="cursor-pointer">
          Labels in the EU speak besides{' '}
          <span className="text-soft">
            {languages.length > 0
              ? languages.map((one) => LABEL_LANGUAGE_NAMES[one]).join(', ')
              : 'nothing more'}
          </span>
        </summary>
        <Choices
          legend="Labels in the EU speak"
          options={LABEL_LANGUAGES}
          words={LABEL_LANGUAGE_NAMES}
          chosen={languages}
          onChoose={(labelLanguages) => put({ labelLanguages })}
        >
          Those beyond what the countries ask for; none for whatever words are given.
        </Choices>
      </details>
      <details>
        <summary className="cursor-pointer">
          Your own in the place of fixed words{' '}
          <span className="text-soft">
            {own.length > 0 ? own.map((one) => LABEL_LANGUAGE_NAMES[one]).join(', ') : 'none'}
          </span>
        </summary>
        <OwnWords words={data.labelWords ?? {}} put={(labelWords) => put({ labelWords })} />
      </details>
      <details>
        <summary className="cursor-pointer">
          Pages of batches stand at <span className="text-soft">{data.cardsAt || 'no address'}</span>
        </summary>
        <CardsAt at={data.cardsAt ?? ''} put={(cardsAt) => put({ cardsAt })} />
      </details>
    </div>
  );
}
