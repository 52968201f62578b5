import { guarded } from '../../ui/Guarded';
import { useCallback, useMemo, useReducer, useState } from 'react';
import { Tab, TabList, TabPanel, Tabs } from 'react-aria-components';
import { MARKETS, type Market } from '../../core/formula/types';
import { marketRules } from '../../rulebook/markets';
import { DRAFT, type StoredWrap, type Wrap, type WrapData } from '../../core/records/wrap';
import { address } from '../../ui/api';
import { historyReducer, startHistory, useUndoKeys } from '../../ui/history';
import { SaveLine } from '../../ui/SaveLine';
import { grams } from '../../ui/words';
import { UndoButtons } from '../../ui/UndoButtons';
import { useSaving, type OnFile } from '../../ui/saving';
import {
  COUNTRY_CODES,
  countryAsks,
  isTold,
  LABEL_LANGUAGE_NAMES,
  type Country,
} from '../../core/labels/languages';
import { Select } from '../../ui/Select';
import { DeskContext, marketView, useFindings, type Desk } from './context';
import { IssuedPanel } from './IssuedPanel';
import { ListView } from './ListView';
import { LookPanel } from './LookPanel';
import { MeasuresPanel } from './MeasuresPanel';
import { Preview } from './Preview';
import { StandingPanel } from './StandingPanel';
import { WordsPanel } from './WordsPanel';

function onFile({ revision, savedAt, wrap }: StoredWrap): OnFile<Wrap> {
  return { revision, savedAt, value: wrap };
}
const writeWrap = (revision: number, wrap: Wrap) => ({ revision, wrap });
const readWrap = (body: unknown) => {
  const { saved, stale } = body as { saved?: StoredWrap; stale?: StoredWrap };
  return stale ? { stale: onFile(stale) } : { saved: onFile(saved!) };
};

function Markets({ desk, onMarket }: { desk: Desk; onMarket: (market: Market) => void }) {
  return (
    <fieldset className="flex flex-wrap gap-x-5">
      <legend className="sr-only">Market</legend>
      {MARKETS.map((market) => {
        const { standing, items } = marketView(desk, market);
        const missing = items.filter(({ state }) => state === 'missing').length;
        return (
          <label key={market} className="flex cursor-pointer items-center gap-1.5">
            <input
              type="radio"
              name="market"
              className="accent-ultra"
              checked={market === desk.market}
              onChange={() => onMarket(market)}
            />
            <span className="font-medium">{market}</span>
            <span className="font-narrow text-soft">
              {marketRules(market).regimes[standing.regime].split(',')[0]}
              {missing > 0 && `, ${missing} not yet`}
            </span>
          </label>
        );
      })}
    </fieldset>
  );
}

/** For which country of the EU the label is: all that the house sells to, or one; and what of its words nobody read yet. */
function ForCountry({ desk, onCountry }: { desk: Desk; onCountry: (country: Country | null) => void }) {
  const { labelCountries, labelLanguages } = desk.data;
  const { country } = desk;
  const spoken = country === null ? labelLanguages : countryAsks(country).languages;
  const unread = spoken.filter(isTold).map((language) => LABEL_LANGUAGE_NAMES[language]);
  const note = country === null ? undefined : countryAsks(country).note;
  const options = [
    ['', labelCountries.length > 0 ? 'all countries you sell to' : 'whatever words are given'] as const,
    ...COUNTRY_CODES.map((code) => [code, countryAsks(code).name] as const),
  ];
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-1 pt-1">
      <Select
        label="Label for"
        value={country ?? ''}
        options={options}
        onChange={(code) => onCountry(code || null)}
      />
      {note && <p className="text-soft">{note}</p>}
      {unread.length > 0 && (
        <p role="note" className="border-l-4 border-line pl-2">
          The fixed words in {unread.join(', ')} were not read by a native speaker yet. Have them read, or put
          your own in their place in the{' '}
          <a className="text-ultra underline" href="/house#settings">
            House
          </a>
          .
        </p>
      )}
    </div>
  );
}

function GoesOn() {
  return (
    <Tabs className="side-tabs">
      <TabList aria-label="What goes on it" className="tab-list">
        <Tab id="words">Words</Tab>
        <Tab id="measures">Measures</Tab>
        <Tab id="look">Look</Tab>
      </TabList>
      <TabPanel id="words">
        <WordsPanel />
      </TabPanel>
      <TabPanel id="measures">
        <MeasuresPanel />
      </TabPanel>
      <TabPanel id="look">
        <LookPanel />
      </TabPanel>
    </Tabs>
  );
}

function LeadsTo({ open }: { open: string | null }) {
  return (
    <Tabs className="side-tabs" defaultSelectedKey={open === 'issued' ? 'out' : 'standing'}>
      <TabList aria-label="What it leads to" className="tab-list">
        <Tab id="standing">Standing</Tab>
        <Tab id="list">The list</Tab>
        <Tab id="out">Out and issued</Tab>
      </TabList>
      <TabPanel id="standing">
        <StandingPanel />
      </TabPanel>
      <TabPanel id="list">
        <ListView />
      </TabPanel>
      <TabPanel id="out">
        <IssuedPanel />
      </TabPanel>
    </Tabs>
  );
}

/** For the formula as it stands, or for one batch as it was weighed. */
function ForBatch({ data: { product, batch, batches } }: { data: WrapData }) {
  if (batches.length === 0) return null;
  const place = (id: string) => `/wrap/${product.id}?batch=${encodeURIComponent(id || DRAFT)}`;
  return (
    <div className="flex flex-wrap items-baseline gap-x-4">
      <label className="flex items-baseline gap-2">
        The label is for
        <select
          className="field"
          value={batch?.id ?? ''}
          onChange={(event) => location.assign(place(event.target.value))}
        >
          <option value="">the formula as it stands, a draft</option>
          {batches.map(({ id, code }) => (
            <option key={id} value={id}>
              batch {code}, as weighed
            </option>
          ))}
        </select>
      </label>
      {batch?.lightestG != null && batch.netMassG > batch.lightestG && (
        <p role="alert" className="border-l-4 border-madder bg-wash px-3">
          The lightest settled bar of this batch weighs {grams(batch.lightestG)}; its label says{' '}
          {grams(batch.netMassG)}.
        </p>
      )}
      {batch && (
        <p role="status">
          {batch.differs.length === 0
            ? 'What was weighed reads the same as the formula.'
            : `What was weighed reads otherwise than the formula: ${batch.differs.join(', ')}. The label is made from what was weighed.`}
        </p>
      )}
    </div>
  );
}

/** The wrap on the desk, with its steps, and its saving. */
function useWrap({ product, stored }: WrapData) {
  const [history, dispatch] = useReducer(historyReducer<Wrap>, stored.wrap, startHistory<Wrap>);
  useUndoKeys(dispatch);
  const wrap = history.present;
  const saving = useSaving<Wrap>({
    url: address('products', product.id, 'wrap'),
    loaded: useMemo(() => onFile(stored), [stored]),
    value: wrap,
    savable: true,
    write: writeWrap,
    read: readWrap,
  });
  const change = useCallback(
    (part: Partial<Wrap>, key: string) =>
      dispatch({ type: 'change', value: { ...wrap, ...part }, key, at: Date.now() }),
    [wrap],
  );
  const settle = (takeTheirs: boolean) => {
    const { save, carryOnFrom } = saving;
    if (save.state !== 'stale') return;
    if (takeTheirs) change(save.newer.value, 'theirs');
    carryOnFrom(save.newer);
  };
  return { wrap, history, dispatch, change, saving, settle };
}

interface Props {
  data: WrapData;
  /** What the door through which one came opens: `issued`, or null. */
  open: string | null;
  /** The market asked for. */
  at: string | null;
}

/** What goes on a bar: words, measures and looks beside the label they make, market by market. */
function WrapDeskIsland({ data, open, at }: Props) {
  const { product } = data;
  const { wrap, history, dispatch, change, saving, settle } = useWrap(data);
  const [market, setMarket] = useState<Market>(MARKETS.find((one) => one === at) ?? product.markets[0]!);
  const [phrases, setPhrases] = useState({ phrases: data.ownPhrases, revision: data.phrasesRevision });
  const [land, setLand] = useState<Country | null>(null);
  const country = market === 'EU' ? land : null;
  const findings = useFindings(data, wrap, phrases.phrases);
  const { flush } = saving;
  const desk: Desk = { data, wrap, market, country, ...findings, phrases, setPhrases, change, flush };
  return (
    <DeskContext.Provider value={desk}>
      <div className="px-6 py-3">
        <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1 pb-1">
          <h1 className="text-2xl">{product.name}</h1>
          <a className="text-ultra underline" href={`/bars/${product.id}`}>
            on the worktable
          </a>
          <div className="ml-auto flex items-center gap-2">
            <SaveLine
              what="This wrap"
              saving={saving}
              onTakeTheirs={() => settle(true)}
              onKeepMine={() => settle(false)}
              onTakeAside={(value) => change(value, 'aside')}
            />
            <UndoButtons history={history} dispatch={dispatch} />
          </div>
        </div>
        <ForBatch data={data} />
        <Markets desk={desk} onMarket={setMarket} />
        {market === 'EU' && <ForCountry desk={desk} onCountry={setLand} />}
        <div className="mt-2 grid gap-6 lg:grid-cols-[27rem_minmax(0,1fr)]">
          <div className="sheet">
            <GoesOn />
          </div>
          <div>
            <Preview />
            <LeadsTo open={open} />
          </div>
        </div>
      </div>
    </DeskContext.Provider>
  );
}

export const WrapDesk = guarded('The wrap', WrapDeskIsland);
