import { useEffect, useState } from 'react';
import { useWatch } from 'react-hook-form';
import { saysOtherwise } from '../../core/paperwork/came-before';
import type { CupboardEntry } from '../../core/records/cupboard';
import { conditionSaid } from '../../core/paperwork/conditions';
import { spokenOf } from '../../core/paperwork/conditions-in';
import { asksOf, unanswered } from '../../core/paperwork/supplier-letter';
import { plainNumber } from '../../core/quantities/amount';
import { address, send } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { useKeeping } from '../../ui/keeping';
import { dayInWords } from '../../ui/words';
import type { OpenPaper } from './open';
import { papersFrom, type Draft } from './draft';

/** What is on file of a material, asked for when it is chosen. */
function useOnFile(material: string): [CupboardEntry | null, (entry: CupboardEntry) => void] {
  const [found, setFound] = useState<CupboardEntry | null>(null);
  useEffect(() => {
    let isWanted = true;
    if (material === '') return;
    void send<CupboardEntry>('GET', address('materials', material)).then((answer) => {
      if (isWanted && answer.ok) setFound(answer.body);
    });
    return () => {
      isWanted = false;
    };
  }, [material]);
  return [found?.material.id === material ? found : null, setFound];
}

/** A paper, as far as it is told here. */
type Read = Pick<OpenPaper, 'fileName' | 'lines'>;

/** What a paper shows of conditions that wait for one: a figure or a line, written down by one press. */
function Shows({
  entry,
  paper,
  onChanged,
}: {
  entry: CupboardEntry;
  paper: Read;
  onChanged: (entry: CupboardEntry) => void;
}) {
  const { fields } = useWatch<Draft>() as Draft;
  const [written, setWritten] = useState<readonly string[]>([]);
  const { busy, faults, keep } = useKeeping();
  const found = entry.conditions
    .filter(({ state }) => state !== 'met')
    .flatMap(({ condition }) => spokenOf(condition, paper.lines).map((spoken) => ({ condition, spoken })));
  const told = entry.conditions.filter(({ condition: { id } }) => written.includes(id));
  if (found.length === 0 && told.length === 0) return null;
  const named = [fields.number.text, fields.issuer.text].filter(Boolean).join(', ') || paper.fileName;
  const on = fields.issuedOn.text;
  const keepIt = async (condition: string, value: number | null) => {
    const body = { value, paper: named, on, until: null };
    const url = address('materials', entry.material.id, 'conditions', condition);
    const kept = await keep(() => send<CupboardEntry>('PUT', url, body));
    if (!kept) return;
    setWritten((all) => [...all, condition]);
    onChanged(kept);
  };
  return (
    <div role="group" aria-label="What only a paper shows" className="border-l-4 border-ink pl-3">
      {found.map(({ condition, spoken: { line, text, value } }) => (
        <div key={`${condition.id} ${line}`} className="flex flex-wrap items-baseline gap-x-3">
          <span>
            {condition.asks}: the paper says “{text}”.
            {condition.most !== undefined &&
              value === null &&
              ' No one figure stands there; type it in the cupboard.'}
          </span>
          {(condition.most === undefined || value !== null) && (
            <button
              type="button"
              className="action py-0"
              disabled={busy || on === ''}
              onClick={() => void keepIt(condition.id, value)}
            >
              {value === null ? 'It shows that' : `It states ${plainNumber(value, 4)} ${condition.unit}`}
            </button>
          )}
        </div>
      ))}
      <div role="status">
        {told.map((stand) => (
          <p key={stand.condition.id}>Written down. {conditionSaid(stand)}</p>
        ))}
      </div>
      {on === '' && found.length > 0 && <p className="text-soft">Give its day first.</p>}
      <Faults faults={faults} />
    </div>
  );
}

/** What a paper means for what is on file: it answers a letter, shows a condition, came before with other figures. */
export function Meaning({ paper }: { paper: Read }) {
  const draft = useWatch<Draft>() as Draft;
  const [entry, setEntry] = useOnFile(draft.material);
  if (!entry) return null;
  const [waits] = unanswered(entry.letters, asksOf(entry));
  return (
    <>
      {waits && (
        <p role="status" className="border-l-4 border-ink pl-3">
          {entry.material.name}: its supplier was asked on {dayInWords(waits.letter.on)}; this may be the
          answer.
        </p>
      )}
      <Shows key={entry.material.id} entry={entry} paper={paper} onChanged={setEntry} />
      <Otherwise entry={entry} draft={draft} fileName={paper.fileName} />
    </>
  );
}

/** Where a paper of that number is on file: what this one says otherwise, before it is filed. */
function Otherwise({ entry, draft, fileName }: { entry: CupboardEntry; draft: Draft; fileName: string }) {
  const { certificate, allergens } = entry.papers;
  const onFile = [certificate, allergens].flatMap((one) => (one ? [one.paper, ...one.others] : []));
  const found = papersFrom(draft, fileName).flatMap((paper) => {
    const otherwise = saysOtherwise(paper, onFile);
    return otherwise === null ? [] : [{ paper, otherwise }];
  });
  if (found.length === 0) return null;
  return (
    <div role="status" aria-label="It came before" className="border-l-4 border-ink pl-3">
      {found.map(({ paper: { number, type }, otherwise }) => (
        <div key={type}>
          <p className="font-medium">
            {number} is on file already
            {otherwise.length === 0 ? ', and says the same.' : '. It says otherwise now:'}
          </p>
          <ul>
            {otherwise.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </div>
      ))}
    </div>
  );
}
