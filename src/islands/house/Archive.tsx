import { Download, FileInput } from 'lucide-react';
import { useState } from 'react';
import { groupBy } from '../../core/group';
import type { ArchivePreview } from '../../core/records/house';
import { address, send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { momentInWords } from '../../ui/words';
import { FileButton } from '../../ui/FileButton';

const THING_WORDS: Record<string, string> = {
  material: 'Materials, with papers and lots',
  bar: 'Bars, with versions, wrap and issued labels',
  batch: 'Batches',
  paper: 'Papers in the tray',
  change: 'Changes looked at',
  task: 'Tasks',
  complaint: 'Complaints and unwanted effects',
  setting: 'Settings',
  picture: 'Pictures',
};
/** Lists that go out one by one, and what they are called. */
const LISTS = [
  ['bars', 'bars'],
  ['recipes', 'recipes'],
  ['formulas', 'every version of them'],
  ['materials', 'materials'],
  ['papers', 'papers'],
  ['lots', 'lots'],
  ['batches', 'batches'],
  ['sold', 'what went out'],
] as const;
/** Lists for a spreadsheet: all as one workbook, each as CSV in either way of writing a fraction. */
function Lists() {
  const link = (query: string, words: string) => (
    <a className="text-ultra underline" href={`/api/v1/lists?${query}`}>
      {words}
    </a>
  );
  return (
    <>
      <p>Lists for a spreadsheet: {link('as=xlsx', 'all in one workbook')}.</p>
      {[
        ['csv', 'As CSV'],
        ['csv-comma', 'As CSV with decimal commas'],
      ].map(([as, words]) => (
        <p key={as}>
          {words}:{' '}
          {LISTS.map(([name, called], at) => (
            <span key={name}>
              {at > 0 && ', '}
              {link(`list=${name}&as=${as}`, called)}
            </span>
          ))}
          .
        </p>
      ))}
    </>
  );
}

const STATES = ['new', 'different', 'same'] as const;
const STATE_WORDS = { new: 'new here', different: 'different here', same: 'the same' } as const;
const MOST_NAMED = 12;

function names(things: ArchivePreview['things']): string {
  const shown = things.slice(0, MOST_NAMED).map(({ title }) => title);
  const more = things.length - shown.length;
  return `${shown.join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}

function Preview({ preview: { things, title, of, madeAt } }: { preview: ArchivePreview }) {
  const kinds = groupBy(things, ({ thing }) => thing);
  return (
    <>
      <p>
        {of === 'bar' ? `One bar, ${title}` : 'Everything of a house'}, packed {momentInWords(madeAt)}.
      </p>
      <table className="plain-table" aria-label="What is in it">
        <tbody>
          {[...kinds].map(([kind, all]) => (
            <tr key={kind}>
              <th scope="row">{THING_WORDS[kind] ?? kind}</th>
              <td>
                {STATES.map((state) => {
                  const these = all.filter((one) => one.state === state);
                  if (these.length === 0) return null;
                  return (
                    <p key={state}>
                      <strong className="font-medium">
                        {these.length} {STATE_WORDS[state]}
                      </strong>
                      {state !== 'same' && <span className="text-soft">: {names(these)}</span>}
                    </p>
                  );
                })}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

const SILENT: Fault = { path: '', message: 'The application does not answer. Try again; nothing was taken.' };

function useTaking() {
  const [preview, setPreview] = useState<ArchivePreview | null>(null);
  const [faults, setFaults] = useState<Fault[]>([]);
  const [busy, setBusy] = useState<string | null>(null);
  const [done, setDone] = useState('');
  const open = async (file: File) => {
    setBusy('Looking through it…');
    setDone('');
    setPreview(null);
    try {
      const response = await fetch(address('archive', 'incoming'), { method: 'POST', body: file });
      const body = (await response.json()) as ArchivePreview & { errors?: Fault[] };
      setFaults(response.ok ? [] : (body.errors ?? [SILENT]));
      if (response.ok) setPreview(body);
    } catch {
      setFaults([SILENT]);
    }
    setBusy(null);
  };
  const take = async (which: 'new' | 'all') => {
    setBusy('Taking it in…');
    const url = address('archive', 'incoming', preview!.id, 'take');
    const answer = await send<{ taken: number; left: number }>('POST', url, { which });
    setBusy(null);
    setFaults(answer.ok ? [] : answer.faults);
    if (!answer.ok) return;
    setPreview(null);
    const { taken, left } = answer.body;
    setDone(`${taken} taken in.${left > 0 ? ` ${left} that differ were left as they are here.` : ''}`);
  };
  const drop = () => {
    void send('DELETE', address('archive', 'incoming', preview!.id));
    setPreview(null);
  };
  return { preview, faults, busy, done, open, take, drop };
}

/** Everything out as one file, and in again after a look. */
export function Archive() {
  const { preview, faults, busy, done, open, take, drop } = useTaking();
  const count = (state: string) => preview?.things.filter((one) => one.state === state).length ?? 0;
  return (
    <section aria-label="Archive" id="archive" className="sheet">
      <h2 className="text-lg">Archive</h2>
      <Lists />
      <p className="text-soft">
        One ZIP with everything in open formats: JSON with schemas, lists for a spreadsheet, issued labels,
        papers, photographs and the database itself, each with its checksum.
      </p>
      <p className="flex flex-wrap items-end gap-6 py-2">
        <a className="action" href={address('archive')} download>
          <Download size={16} aria-hidden="true" /> Everything out
        </a>
        <FileButton accept=".zip,application/zip" disabled={busy !== null} onFile={(file) => void open(file)}>
          <FileInput size={16} aria-hidden="true" /> Look into an archive, or a bar somebody handed over
        </FileButton>
      </p>
      <p role="status">{busy ?? done}</p>
      <Faults faults={faults} />
      {preview && (
        <>
          <Preview preview={preview} />
          <div className="flex flex-wrap gap-3 pt-2">
            <button
              type="button"
              className="action action-strong"
              disabled={busy !== null || count('new') === 0}
              onClick={() => void take('new')}
            >
              Take in the {count('new')} new
            </button>
            {count('different') > 0 && (
              <button
                type="button"
                className="action"
                disabled={busy !== null}
                onClick={() => void take('all')}
              >
                Take in the new and exchange the {count('different')} that differ
              </button>
            )}
            <button type="button" className="action" onClick={drop}>
              Close, change nothing
            </button>
          </div>
          <p className="text-soft">
            A backup is made first. Batches that differ always stay: what was poured is not exchanged.
          </p>
        </>
      )}
    </section>
  );
}
