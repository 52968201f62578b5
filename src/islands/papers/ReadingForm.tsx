import type { KeyboardEvent } from 'react';
import { Controller, useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { DayField } from '../../ui/DayField';
import { Meaning } from './Meaning';
import { CutOut } from './CutOut';
import type { OpenPaper } from './open';
import { Keyed } from './Keyed';
import { FIELD_WORDS, withTheCertain, type Draft, type DraftRow, type FieldKey } from './draft';

/** Shows where on the paper something stands. */
type Point = (lines: number[]) => void;

const CATEGORY_MAX_WORDS: Record<number, string> = { 0: 'not permitted', 100: 'no restriction' };
const CERTIFICATE_KEYS: readonly FieldKey[] = ['edition', 'maxPct', 'flashPointC', 'vanillinPct'];
const COMMON_KEYS: readonly FieldKey[] = ['number', 'issuer', 'issuedOn'];

function useField(at: FieldKey) {
  const { setValue } = useFormContext<Draft>();
  const field = useWatch<Draft, `fields.${FieldKey}`>({ name: `fields.${at}` });
  const put = (text: string) => setValue(`fields.${at}`, { ...field, text, isLooked: true });
  return { field, put };
}

function Input({ at, label, onPoint }: { at: FieldKey; label: string; onPoint: () => void }) {
  const { register, control } = useFormContext<Draft>();
  const { put } = useField(at);
  if (at === 'issuedOn')
    return (
      <Controller
        control={control}
        name={`fields.${at}.text`}
        render={({ field }) => (
          <DayField label={label} value={field.value} onChange={put} onFocus={onPoint} />
        )}
      />
    );
  return (
    <label>
      <span className="eyebrow block">{label}</span>
      <input
        className="field w-full"
        {...register(`fields.${at}.text`, {
          onChange: (event: { target: { value: string } }) => put(event.target.value),
        })}
        onFocus={onPoint}
      />
    </label>
  );
}

/** Readings that fit as well as each other, beside the line on the page: one is chosen, or another typed. */
function Choices({ at, paper }: { at: FieldKey; paper: OpenPaper }) {
  const { field, put } = useField(at);
  return (
    <div role="group" aria-label={`${FIELD_WORDS[at]}: which?`} className="border-l-4 border-ink pl-2">
      <CutOut paper={paper} line={field.line} figures={field.others} />
      <p className="text-[0.9rem] leading-tight">{field.question}</p>
      <div className="mt-1 flex flex-wrap gap-2">
        {field.others.map((other) => (
          <button
            key={other}
            type="button"
            className="action"
            aria-pressed={field.text === other}
            onClick={() => put(other)}
          >
            {other}
          </button>
        ))}
      </div>
    </div>
  );
}

function Field({ at, paper, onPoint }: { at: FieldKey; paper: OpenPaper; onPoint: Point }) {
  const { register } = useFormContext<Draft>();
  const { field, put } = useField(at);
  const label = `${FIELD_WORDS[at]}${field.line === null && !paper.isByHand ? ' (not found)' : ''}`;
  return (
    <div>
      <Input at={at} label={label} onPoint={() => onPoint(field.line === null ? [] : [field.line])} />
      {field.isOpen && <Choices at={at} paper={paper} />}
      {!field.isOpen && field.others.length > 0 && (
        <p className="text-[0.9rem]">
          or{' '}
          {field.others.map((other) => (
            <button
              key={other}
              type="button"
              className="mr-2 min-h-6 cursor-pointer text-ultra underline"
              onClick={() => put(other)}
            >
              {other}
            </button>
          ))}
        </p>
      )}
      {field.question && !field.isOpen && (
        <label className="flex items-start gap-1.5 text-[0.9rem] leading-tight">
          <input type="checkbox" data-asked className="accent-ultra" {...register(`fields.${at}.isLooked`)} />
          <span>
            {field.question} <span className="text-soft">I have looked.</span>
          </span>
        </label>
      )}
    </div>
  );
}

function Row({ row, at, onPoint }: { row: DraftRow; at: number; onPoint: () => void }) {
  const { register } = useFormContext<Draft>();
  const cell = (key: 'low' | 'typical' | 'high', label: string) => (
    <td>
      <input
        className="field w-16 tabular-nums"
        inputMode="decimal"
        aria-label={`${label} share of ${row.name}, percent`}
        {...register(`rows.${at}.${key}`)}
        onFocus={onPoint}
      />
    </td>
  );
  return (
    <>
      <tr>
        <td>
          <input
            type="checkbox"
            className="accent-ultra"
            aria-label={`Take ${row.name || row.cas}`}
            {...register(`rows.${at}.isTaken`)}
            onFocus={onPoint}
          />
        </td>
        <th scope="row" className="leading-tight">
          {row.name || 'no name'}
          <span className="block font-narrow font-normal text-soft">{row.cas || 'no number'}</span>
        </th>
        {cell('low', 'Low')}
        {cell('typical', 'Typical')}
        {cell('high', 'High')}
      </tr>
      {row.question && (
        <tr>
          <td />
          <td colSpan={4} className="text-[0.9rem] leading-tight">
            {row.question}
          </td>
        </tr>
      )}
    </>
  );
}

function Rows({ onPoint }: { onPoint: Point }) {
  const { control } = useFormContext<Draft>();
  const { fields: rows } = useFieldArray<Draft, 'rows'>({ control, name: 'rows' });
  if (rows.length === 0) return null;
  return (
    <table className="plain-table">
      <caption className="text-left font-medium">Constituents, percent of the material</caption>
      <thead>
        <tr>
          {['Take', 'Name', 'Low', 'Typical', 'High'].map((head) => (
            <th key={head} scope="col">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, index) => (
          <Row key={row.id} row={row} at={index} onPoint={() => onPoint(row.lines)} />
        ))}
      </tbody>
    </table>
  );
}

interface Materials {
  materials: readonly { id: string; name: string }[];
  paper: OpenPaper;
  onPoint: Point;
}

function BelongsTo({ materials, onPoint }: Omit<Materials, 'paper'>) {
  const { register, setValue } = useFormContext<Draft>();
  const [line, question] = useWatch<Draft, ['materialLine', 'materialQuestion']>({
    name: ['materialLine', 'materialQuestion'],
  });
  return (
    <label>
      <span className="eyebrow block">Belongs to</span>
      <select
        className="field w-full"
        {...register('material', { onChange: () => setValue('materialQuestion', null) })}
        onFocus={() => onPoint(line === null ? [] : [line])}
      >
        <option value="">choose a material</option>
        {materials.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      {question && <span className="block text-[0.9rem]">{question}</span>}
    </label>
  );
}

function Certificate({ paper, onPoint }: { paper: OpenPaper; onPoint: Point }) {
  const { register } = useFormContext<Draft>();
  const isTaken = useWatch<Draft, 'takesCertificate'>({ name: 'takesCertificate' });
  const others = useWatch<Draft, 'otherCategories'>({ name: 'otherCategories' });
  return (
    <>
      <label className="mt-1 flex cursor-pointer items-center gap-1.5 font-medium">
        <input type="checkbox" className="accent-ultra" {...register('takesCertificate')} />
        File it as a certificate
      </label>
      {isTaken && (
        <div className="grid grid-cols-2 gap-3">
          {CERTIFICATE_KEYS.map((key) => (
            <Field key={key} at={key} paper={paper} onPoint={onPoint} />
          ))}
        </div>
      )}
      {others.length > 0 && (
        <p className="font-narrow text-soft">
          Other categories:{' '}
          {others
            .map(({ category, maxPct }) => `${category}: ${CATEGORY_MAX_WORDS[maxPct] ?? `${maxPct} %`}`)
            .join(', ')}
        </p>
      )}
    </>
  );
}

/** Takes all that is not doubtful by one press; what is asked about besides stays as it is. */
function TakeTheCertain() {
  const { getValues, reset } = useFormContext<Draft>();
  return (
    <p>
      <button
        type="button"
        className="action"
        onClick={() =>
          reset(withTheCertain(getValues()), { keepDefaultValues: true, keepDirty: true, keepErrors: true })
        }
      >
        I have compared it: take all but the doubtful
      </button>
    </p>
  );
}

/** Enter in a field goes on to the next that is asked about and not yet looked at, and files nothing by itself. */
function toNextAsked(event: KeyboardEvent<HTMLDivElement>): void {
  const from = event.target;
  if (event.key !== 'Enter' || !(from instanceof HTMLInputElement)) return;
  event.preventDefault();
  const asked = [...event.currentTarget.querySelectorAll<HTMLInputElement>('input[data-asked]')];
  const isAfter = (one: HTMLInputElement) =>
    (from.compareDocumentPosition(one) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0;
  if (from.dataset.asked !== undefined && !from.checked) from.click();
  const open = asked.filter((one) => one !== from && !one.checked);
  const next = open.find(isAfter) ?? open[0];
  const last = event.currentTarget.closest('form')?.querySelector<HTMLElement>('button[type=submit]');
  (next ?? last)?.focus();
}

/** What was read, to be corrected and ticked; nothing is filed that is not ticked. */
export function ReadingForm({
  questions,
  materials,
  paper,
  onPoint,
}: Materials & { questions: readonly string[] }) {
  return (
    <div className="grid gap-2" onKeyDown={toNextAsked}>
      {questions.length > 0 && (
        <ul className="border-l-4 border-ink pl-3">
          {questions.map((question) => (
            <li key={question}>{question}</li>
          ))}
        </ul>
      )}
      {paper.isPicture && <TakeTheCertain />}
      <BelongsTo materials={materials} onPoint={onPoint} />
      <Meaning paper={paper} />
      <div className="grid grid-cols-[repeat(auto-fit,minmax(8rem,1fr))] gap-3">
        {COMMON_KEYS.map((key) => (
          <Field key={key} at={key} paper={paper} onPoint={onPoint} />
        ))}
      </div>
      <Certificate paper={paper} onPoint={onPoint} />
      <Rows onPoint={onPoint} />
      <Keyed />
    </div>
  );
}
