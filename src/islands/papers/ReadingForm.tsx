import type { Dispatch, SetStateAction } from 'react';
import { FIELD_WORDS, type Draft, type DraftRow, type FieldKey } from './draft';

interface Props {
  draft: Draft;
  setDraft: Dispatch<SetStateAction<Draft | null>>;
  materials: readonly { id: string; name: string }[];
  onPoint: (lines: number[]) => void;
}

const CATEGORY_MAX_WORDS: Record<number, string> = { 0: 'not permitted', 100: 'no restriction' };
const CERTIFICATE_KEYS: readonly FieldKey[] = ['edition', 'maxPct', 'flashPointC', 'vanillinPct'];
const COMMON_KEYS: readonly FieldKey[] = ['number', 'issuer', 'issuedOn'];

function Field({ draft, setDraft, onPoint, at }: Omit<Props, 'materials'> & { at: FieldKey }) {
  const field = draft.fields[at];
  const set = (part: Partial<typeof field>) =>
    setDraft((all) => all && { ...all, fields: { ...all.fields, [at]: { ...all.fields[at], ...part } } });
  return (
    <div>
      <label>
        <span className="eyebrow block">
          {FIELD_WORDS[at]}
          {field.line === null && ' (not found)'}
        </span>
        <input
          className="field w-full"
          type={at === 'issuedOn' ? 'date' : 'text'}
          value={field.text}
          onFocus={() => onPoint(field.line === null ? [] : [field.line])}
          onChange={(event) => set({ text: event.target.value, isLooked: true })}
        />
      </label>
      {field.question && (
        <label className="flex items-start gap-1.5 text-[0.9rem] leading-tight">
          <input
            type="checkbox"
            className="accent-ultra"
            checked={field.isLooked}
            onChange={(event) => set({ isLooked: event.target.checked })}
          />
          <span>
            {field.question} <span className="text-soft">I have looked.</span>
          </span>
        </label>
      )}
    </div>
  );
}

function Row({
  row,
  onChange,
  onPoint,
}: {
  row: DraftRow;
  onChange: (part: Partial<DraftRow>) => void;
  onPoint: () => void;
}) {
  const cell = (key: 'low' | 'typical' | 'high', label: string) => (
    <td>
      <input
        className="field w-16 tabular-nums"
        inputMode="decimal"
        aria-label={`${label} share of ${row.name}, percent`}
        value={row[key]}
        onFocus={onPoint}
        onChange={(event) => onChange({ [key]: event.target.value })}
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
            checked={row.isTaken}
            onFocus={onPoint}
            onChange={(event) => onChange({ isTaken: event.target.checked })}
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

/** What was read, to be corrected and ticked; nothing is filed that is not ticked. */
export function ReadingForm({ draft, setDraft, materials, onPoint }: Props) {
  const change = (part: Partial<Draft>) => setDraft((all) => all && { ...all, ...part });
  const changeRow = (at: number, part: Partial<DraftRow>) =>
    change({ rows: draft.rows.map((row, index) => (index === at ? { ...row, ...part } : row)) });
  return (
    <div className="grid gap-2">
      {draft.questions.length > 0 && (
        <ul className="border-l-4 border-ink pl-3">
          {draft.questions.map((question) => (
            <li key={question}>{question}</li>
          ))}
        </ul>
      )}
      <label>
        <span className="eyebrow block">Belongs to</span>
        <select
          className="field w-full"
          value={draft.material}
          onFocus={() => onPoint(draft.materialLine === null ? [] : [draft.materialLine])}
          onChange={(event) => change({ material: event.target.value, materialQuestion: null })}
        >
          <option value="">choose a material</option>
          {materials.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        {draft.materialQuestion && <span className="block text-[0.9rem]">{draft.materialQuestion}</span>}
      </label>
      <div className="grid grid-cols-3 gap-3">
        {COMMON_KEYS.map((key) => (
          <Field key={key} at={key} draft={draft} setDraft={setDraft} onPoint={onPoint} />
        ))}
      </div>
      <label className="mt-1 flex cursor-pointer items-center gap-1.5 font-medium">
        <input
          type="checkbox"
          className="accent-ultra"
          checked={draft.takesCertificate}
          onChange={(event) => change({ takesCertificate: event.target.checked })}
        />
        File it as a certificate
      </label>
      {draft.takesCertificate && (
        <div className="grid grid-cols-2 gap-3">
          {CERTIFICATE_KEYS.map((key) => (
            <Field key={key} at={key} draft={draft} setDraft={setDraft} onPoint={onPoint} />
          ))}
        </div>
      )}
      {draft.otherCategories.length > 0 && (
        <p className="font-narrow text-soft">
          Other categories:{' '}
          {draft.otherCategories
            .map(({ category, maxPct }) => `${category}: ${CATEGORY_MAX_WORDS[maxPct] ?? `${maxPct} %`}`)
            .join(', ')}
        </p>
      )}
      {draft.rows.length > 0 && (
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
            {draft.rows.map((row, index) => (
              <Row
                key={index}
                row={row}
                onChange={(part) => changeRow(index, part)}
                onPoint={() => onPoint(row.lines)}
              />
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
