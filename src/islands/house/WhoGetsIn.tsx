import { useEffect, useState } from 'react';
import { address, send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { momentInWords } from '../../ui/words';
import { deviceInWords } from './words';

interface Device {
  id: string;
  kind: 'desk' | 'bench';
  device: string;
  since: number;
  seen: number;
  isOwn: boolean;
}

interface AccessData {
  isShut: boolean;
  hasPassphrase: boolean;
  sessions: Device[];
  /** By what a device comes to trust this house; null where connections are not encrypted by it. */
  trust: { fingerprint: string; url: string; svg: string } | null;
}

const KIND_WORDS = { desk: 'desk: everything', bench: 'bench: pouring and weighing' } as const;
const when = (ms: number) => momentInWords(new Date(ms).toISOString());

function Devices({ devices, onEnd }: { devices: readonly Device[]; onEnd: (id: string) => void }) {
  return (
    <table className="plain-table" aria-label="Devices that are in">
      <tbody>
        {devices.map(({ id, kind, device, seen, isOwn }) => (
          <tr key={id}>
            <th scope="row">
              {KIND_WORDS[kind]}
              {isOwn && ', this one'}
            </th>
            <td className="text-soft" title={device}>
              {deviceInWords(device)}
            </td>
            <td>seen {when(seen)}</td>
            <td>
              {!isOwn && (
                <button type="button" className="action py-0" onClick={() => onEnd(id)}>
                  Shut out
                </button>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function BenchCode({ onFaults }: { onFaults: (faults: Fault[]) => void }) {
  const [made, setMade] = useState<{ code: string; url: string; svg: string } | null>(null);
  const make = async () => {
    const answer = await send<NonNullable<typeof made>>('POST', address('access', 'bench'));
    if (answer.ok) setMade(answer.body);
    else onFaults(answer.faults);
  };
  return (
    <div>
      <button type="button" className="action" onClick={() => void make()}>
        Let a device of the bench in
      </button>
      {made && (
        <figure className="pt-2">
          <img
            className="h-44 w-44"
            alt={`Code ${made.code} for ${made.url}`}
            src={`data:image/svg+xml;utf8,${encodeURIComponent(made.svg)}`}
          />
          <figcaption>
            Point its camera here, or open <span className="break-all">{made.url.split('?')[0]}</span> and
            type <strong className="tabular-nums">{made.code}</strong>. Good once, for ten minutes.
          </figcaption>
        </figure>
      )}
    </div>
  );
}

/** Once on every tablet and phone: without it, its browser warns and keeps camera, wake lock and offline work shut. */
function Trust({ fingerprint, url, svg }: NonNullable<AccessData['trust']>) {
  return (
    <details>
      <summary className="cursor-pointer text-ultra">Make a device trust this house</summary>
      <div className="flex flex-wrap items-start gap-5 pt-2">
        <img
          className="h-44 w-44"
          alt={`Address ${url} of the certificate`}
          src={`data:image/svg+xml;utf8,${encodeURIComponent(svg)}`}
        />
        <div className="max-w-xl">
          <ol className="list-decimal pl-5">
            <li>
              On the device, point its camera here, or open <span className="break-all">{url}</span>. It is
              offered a certificate.
            </li>
            <li>
              Compare the fingerprint (SHA-256) that the device shows with this one. Where they differ, do not
              take it.
            </li>
            <li>Take it as a certificate authority (in its settings, under security or profiles).</li>
          </ol>
          <p className="break-all pt-2 font-narrow tabular-nums">{fingerprint}</p>
        </div>
      </div>
    </details>
  );
}

function Passphrase({
  hasOne,
  onSet,
  onFaults,
}: {
  hasOne: boolean;
  onSet: () => void;
  onFaults: (faults: Fault[]) => void;
}) {
  const [old, setOld] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const put = async () => {
    const answer = await send('PUT', address('access', 'passphrase'), { old, passphrase });
    onFaults(answer.ok ? [] : answer.faults);
    if (!answer.ok) return;
    setOld('');
    setPassphrase('');
    onSet();
  };
  const field = (label: string, value: string, onChange: (text: string) => void, complete: string) => (
    <label>
      <span className="eyebrow block">{label}</span>
      <input
        type="password"
        className="field w-56"
        autoComplete={complete}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void put();
      }}
    >
      {hasOne && field('The passphrase now', old, setOld, 'current-password')}
      {field(
        hasOne ? 'Another one' : 'A passphrase of ten letters or more',
        passphrase,
        setPassphrase,
        'new-password',
      )}
      <button type="submit" className="action" disabled={passphrase.length < 10}>
        {hasOne ? 'Change it; every device has to sign in again' : 'Set it'}
      </button>
    </form>
  );
}

/** Who can open this from other machines, and with what. */
export function WhoGetsIn() {
  const [data, setData] = useState<AccessData | null>(null);
  const [faults, setFaults] = useState<Fault[]>([]);
  const look = async () => {
    const answer = await send<AccessData>('GET', address('access'));
    if (answer.ok) setData(answer.body);
  };
  useEffect(() => {
    void send<AccessData>('GET', address('access')).then((answer) => answer.ok && setData(answer.body));
  }, []);
  if (!data)
    return (
      <section aria-label="Who gets in" className="sheet min-h-48">
        <h2 className="text-lg">Who gets in</h2>
      </section>
    );
  const { isShut, hasPassphrase, sessions, trust } = data;
  const act = async (method: 'POST' | 'DELETE', part: string) => {
    const answer = await send(method, address('access', part));
    setFaults(answer.ok ? [] : answer.faults);
    if (answer.ok && part === 'end-all') location.assign('/sign-in');
    else await look();
  };
  const signOut = async () => {
    await fetch('/sign-out', { method: 'POST', redirect: 'manual' });
    // What this browser kept of benches for a day without the network goes with the session.
    if ('caches' in window)
      await Promise.all(['bench-pages', 'bench-data'].map((name) => caches.delete(name)));
    location.assign('/sign-in');
  };
  return (
    <section aria-label="Who gets in" id="access" className="sheet grid gap-3">
      <h2 className="text-lg">Who gets in</h2>
      <p>
        {isShut
          ? 'Other machines reach this one; everybody signs in.'
          : 'Only this machine reaches it, and nobody has to sign in. To open it to a tablet at the bench, set a passphrase and start with HOST=0.0.0.0.'}
      </p>
      {isShut && (
        <>
          <Devices devices={sessions} onEnd={(id) => void act('DELETE', id)} />
          <div className="flex flex-wrap items-start gap-6">
            <BenchCode onFaults={setFaults} />
            <button type="button" className="action" onClick={() => void act('POST', 'end-all')}>
              Sign out everywhere
            </button>
            <button type="button" className="action" onClick={() => void signOut()}>
              Sign out here
            </button>
          </div>
        </>
      )}
      {trust && <Trust {...trust} />}
      <Passphrase hasOne={hasPassphrase} onSet={() => void look()} onFaults={setFaults} />
      <Faults faults={faults} />
    </section>
  );
}
