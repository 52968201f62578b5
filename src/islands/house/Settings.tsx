import { useState, useSyncExternalStore } from 'react';
import { MARKETS } from '../../core/formula/types';
import { CURRENCIES, DEGREES, type HouseSettings, type SettingsData } from '../../core/records/house';
import { address, send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { Choices } from './Choices';
import { LabelSpeech } from './LabelSpeech';
import { Select } from '../../ui/Select';
import { MARKET_WORDS } from '../../ui/words';

function DemoOut({
  demo,
  onOut,
}: {
  demo: NonNullable<SettingsData['demo']>;
  onOut: (data: SettingsData) => void;
}) {
  const [isSure, setSure] = useState(false);
  const [faults, setFaults] = useState<Fault[]>([]);
  const out = async () => {
    const answer = await send<SettingsData>('POST', address('demo'), { sure: 'take the demo out' });
    if (answer.ok) onOut(answer.body);
    else setFaults(answer.faults);
  };
  return (
    <div className="pt-3">
      <h3 className="font-medium">The demo</h3>
      <p>
        {demo.bars} bars, {demo.materials} materials and {demo.batches} batches of it are here. Taken out,
        what you made yourself stays, with every material and bar it needs.
      </p>
      {isSure ? (
        <p className="flex flex-wrap gap-3">
          <button type="button" className="action action-strong" onClick={() => void out()}>
            Take it out; a backup is made first
          </button>
          <button type="button" className="action" onClick={() => setSure(false)}>
            Close, change nothing
          </button>
        </p>
      ) : (
        <button type="button" className="action" onClick={() => setSure(true)}>
          Begin empty: take the demo out
        </button>
      )}
      <Faults faults={faults} />
    </div>
  );
}

type Put = (change: { currency?: string } & Partial<HouseSettings>) => void;

let zones: readonly string[] | null = null;
const NONE: readonly string[] = [];
const never = () => () => undefined;
const allZones = () => (zones ??= ['UTC', ...Intl.supportedValuesOf('timeZone')]);

/** Zones by their IANA names, with the one that is set; that one alone where it is drawn on the server. */
function useZones(zone: string): string[] {
  const known = useSyncExternalStore(never, allZones, () => NONE);
  return [...new Set([zone, ...known])].sort();
}

/** What things are said in. */
function Habits({ data, put }: { data: SettingsData; put: Put }) {
  const zones = useZones(data.zone);
  return (
    <>
      <Select
        label="Time zone"
        isEven
        value={data.zone}
        options={zones.map((zone) => [zone, zone.replaceAll('_', ' ')] as const)}
        onChange={(zone) => put({ zone })}
      />
      <Select
        label="Prices are in"
        value={data.currency}
        options={CURRENCIES.map((one) => [one, one] as const)}
        onChange={(currency) => put({ currency })}
      />
      <Select
        label="Warmth is said in"
        value={data.degrees ?? 'C'}
        options={DEGREES.map((one) => [one, `°${one}`] as const)}
        onChange={(degrees) => put({ degrees })}
      />
      <Select
        label="A new line is weighed in"
        value={data.weights ?? 'g'}
        options={[
          ['g', 'grams'],
          ['oz', 'ounces'],
        ]}
        onChange={(weights) => put({ weights })}
      />
      <Select
        label="A bare percent of a scent is"
        value={data.scentPercents ?? ''}
        options={[
          ...(data.scentPercents ? [] : [['', 'asked about'] as const]),
          ['%fats', 'of the fats'],
          ['%pour', 'of the whole pour'],
        ]}
        onChange={(chosen) => {
          if (chosen) put({ scentPercents: chosen });
        }}
      />
    </>
  );
}

/** What counts for the whole house. */
export function Settings({ first }: { first: SettingsData }) {
  const [data, setData] = useState(first);
  const [faults, setFaults] = useState<Fault[]>([]);
  const [said, setSaid] = useState('');
  const put = async (change: Parameters<Put>[0]) => {
    const { demo: _, ...before } = data;
    const body = { ...before, ...change };
    const answer = await send<SettingsData>('PUT', address('settings'), body);
    setFaults(answer.ok ? [] : answer.faults);
    if (!answer.ok) return;
    setData(answer.body);
    setSaid(answer.status === 409 ? 'Another window changed this just now; look again.' : 'Kept.');
  };
  return (
    <section aria-label="Settings" id="settings" className="sheet">
      <h2 className="text-lg">Settings</h2>
      <div className="flex flex-wrap items-start gap-x-8 gap-y-3">
        <Habits data={data} put={(change) => void put(change)} />
        <Choices
          legend="A new bar is sold in"
          options={MARKETS}
          words={MARKET_WORDS}
          chosen={data.markets}
          onChoose={(markets) => void put({ markets })}
        />
        <LabelSpeech data={data} put={(change) => void put(change)} />
        <ul className="leading-relaxed">
          <li>
            <a className="text-ultra underline" href="/house/import">
              Bars, materials and lots from a spreadsheet
            </a>
          </li>
          <li>
            <a className="text-ultra underline" href="/wrap/maker">
              Who answers for the bars
            </a>
            , everywhere and market by market
          </li>
          <li>
            <a className="text-ultra underline" href="/rack">
              Days a bar cures
            </a>
            , at the foot of the rack
          </li>
        </ul>
      </div>
      <p role="status" className="text-soft">
        {said}
      </p>
      <Faults faults={faults} />
      {data.demo && <DemoOut demo={data.demo} onOut={setData} />}
    </section>
  );
}
