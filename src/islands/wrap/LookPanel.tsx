import { useState } from 'react';
import type { School } from '../../core/formula/answer';
import {
  asksForFace,
  PANELS,
  proposedFace,
  SHAPES,
  USUAL_FORMATS,
  type LabelFormat,
  type PackageFace,
  type Shape,
} from '../../core/labels/formats';
import { marketRules } from '../../rulebook/markets';
import { NumberField, OptionalNumberField } from '../../ui/ReadField';
import { SHAPE_WORDS } from '../../ui/words';
import { newStep } from '../../ui/step';
import { useDesk } from './context';
import { LABEL_MANNERS } from '../../core/labels/manners';

const MM_PER_INCH = 25.4;
const SCHOOL_WORDS: Record<School, string> = { added: 'As added', formed: 'As formed' };
const ignore = () => undefined;

function Sizes({ format, onChange }: { format: LabelFormat; onChange: (format: LabelFormat) => void }) {
  const [unit, setUnit] = useState<'mm' | 'in'>('mm');
  const factor = unit === 'mm' ? 1 : MM_PER_INCH;
  const side = (
    key: 'widthMm' | 'heightMm' | 'depthMm' | 'marginMm',
    label: string,
    least: number,
    most: number,
  ) => (
    <NumberField
      label={label}
      unit={unit}
      value={Number(((format[key] ?? 0) / factor).toFixed(3))}
      least={least / factor}
      most={most / factor}
      onChange={(value) => onChange({ ...format, [key]: Number((value * factor).toFixed(3)) })}
      onFault={ignore}
    />
  );
  return (
    <div className="flex flex-wrap items-end gap-3">
      {side('widthMm', format.shape === 'round' ? 'Across' : 'Wide', 1, 1200)}
      {format.shape !== 'round' && side('heightMm', 'High', 1, 1200)}
      {format.shape === 'box' && side('depthMm', 'Deep', 1, 600)}
      {format.shape === 'leaflet' && (
        <NumberField
          label="Panels"
          unit=""
          value={format.panels ?? PANELS.least}
          least={PANELS.least}
          most={PANELS.most}
          onChange={(value) => onChange({ ...format, panels: Math.round(value) })}
          onFault={ignore}
        />
      )}
      {side('marginMm', 'Margin', 0, 40)}
      <label>
        <span className="eyebrow block">In</span>
        <select
          className="field"
          value={unit}
          onChange={(event) => setUnit(event.target.value as typeof unit)}
        >
          <option value="mm">millimetres</option>
          <option value="in">inches</option>
        </select>
      </label>
    </div>
  );
}

/** The face of the package shown at sale: the US and Canadian heights follow from it. */
function Face({ format, onChange }: { format: LabelFormat; onChange: (format: LabelFormat) => void }) {
  const { market } = useDesk();
  const asks = asksForFace(market, format);
  // What the shape cannot tell stays empty until both sides are measured.
  const [draft, setDraft] = useState<Partial<PackageFace>>({});
  if (LABEL_MANNERS[market].digitsBy === 'mass') return null;
  const shown: Partial<PackageFace> = format.face ?? (asks ? draft : proposedFace(format));
  const measured = (next: Partial<PackageFace>) => {
    setDraft(next);
    const { widthMm, heightMm } = next;
    const isMeasured = widthMm !== undefined && heightMm !== undefined;
    if (isMeasured || format.face) onChange({ ...format, face: isMeasured ? { widthMm, heightMm } : null });
  };
  const side = (key: keyof PackageFace, label: string) => (
    <OptionalNumberField
      label={label}
      unit="mm"
      value={shown[key] ?? null}
      least={1}
      most={1200}
      onChange={(value) => measured({ ...shown, [key]: value ?? undefined })}
      onFault={ignore}
    />
  );
  return (
    <fieldset className="flex flex-wrap items-end gap-3">
      <legend className="font-medium">Face of the package shown at sale</legend>
      {side('widthMm', 'Face wide')}
      {side('heightMm', 'Face high')}
      {format.face ? (
        <button type="button" className="action py-0" onClick={() => measured({})}>
          {asksForFace(market, { ...format, face: null }) ? 'Forget it' : 'Take it from the shape'}
        </button>
      ) : (
        <span className="text-soft">
          {asks
            ? 'measure the bar with its label on: how high its weight is printed hangs on it'
            : 'from the shape; measure yours'}
        </span>
      )}
    </fieldset>
  );
}

function LogoField() {
  const { data, wrap, change } = useDesk();
  const [has, setHas] = useState(data.hasLogo);
  const [fault, setFault] = useState<string | null>(null);
  const upload = async (file: File | undefined) => {
    if (!file) return;
    const answer = await fetch('/api/v1/logo', {
      method: 'PUT',
      headers: { 'content-type': file.type || 'image/unknown' },
      body: file,
    }).catch(() => null);
    const body = (await answer?.json().catch(() => null)) as { errors?: { message: string }[] } | null;
    if (!answer?.ok) return setFault(body?.errors?.[0]?.message ?? 'The picture was not taken. Try again.');
    setFault(null);
    setHas(true);
    change({ look: { ...wrap.look, logo: true } }, newStep('logo'));
  };
  return (
    <div className="flex flex-wrap items-center gap-4">
      <label className="action py-0">
        {has ? 'Another picture' : 'Your picture, PNG or SVG'}
        <input
          type="file"
          className="sr-only"
          accept="image/png,image/svg+xml"
          onChange={(event) => void upload(event.target.files?.[0])}
        />
      </label>
      {has && (
        <label className="flex cursor-pointer items-center gap-1.5">
          <input
            type="checkbox"
            className="accent-ultra"
            checked={wrap.look.logo}
            onChange={(event) => change({ look: { ...wrap.look, logo: event.target.checked } }, 'logo')}
          />
          on the label
        </label>
      )}
      {fault && (
        <p role="alert" className="text-madder">
          {fault}
        </p>
      )}
    </div>
  );
}

/** School of list, shape and size for the market; type, colours and picture for all. */
export function LookPanel() {
  const { wrap, market, change } = useDesk();
  const rules = marketRules(market);
  const settings = wrap.markets[market] ?? { school: rules.usualSchool, format: USUAL_FORMATS.band };
  const set = (part: Partial<typeof settings>, key: string) =>
    change({ markets: { ...wrap.markets, [market]: { ...settings, ...part } } }, `${market} ${key}`);
  const look = (part: Partial<typeof wrap.look>, key: string) =>
    change({ look: { ...wrap.look, ...part } }, key);
  return (
    <section aria-label="Look" className="grid gap-3 py-2">
      <fieldset className="flex flex-wrap items-center gap-4">
        <legend className="font-medium">List for {market}</legend>
        {(['added', 'formed'] as const).map((school) => (
          <label key={school} className="flex cursor-pointer items-center gap-1.5">
            <input
              type="radio"
              name="school"
              className="accent-ultra"
              checked={settings.school === school}
              onChange={() => set({ school }, 'school')}
            />
            {SCHOOL_WORDS[school]}
            {rules.usualSchool === school && <span className="text-soft">usual there</span>}
          </label>
        ))}
      </fieldset>
      <label>
        <span className="font-medium">Shape for {market}</span>
        <select
          className="field w-full"
          value={settings.format.shape}
          onChange={(event) => set({ format: USUAL_FORMATS[event.target.value as Shape] }, newStep('shape'))}
        >
          {SHAPES.map((shape) => (
            <option key={shape} value={shape}>
              {SHAPE_WORDS[shape]}
            </option>
          ))}
        </select>
      </label>
      <Sizes
        key={`${market} ${settings.format.shape}`}
        format={settings.format}
        onChange={(format) => set({ format }, 'size')}
      />
      <Face
        key={`face ${market} ${settings.format.shape}`}
        format={settings.format}
        onChange={(format) => set({ format }, 'face')}
      />
      <div className="flex flex-wrap items-end gap-4">
        <label>
          <span className="eyebrow block">Name set in</span>
          <select
            className="field"
            value={wrap.look.nameFace}
            onChange={(event) => look({ nameFace: event.target.value as typeof wrap.look.nameFace }, 'face')}
          >
            <option value="display">Besley, a slab</option>
            <option value="strong">Archivo, bold</option>
            <option value="text">Archivo</option>
          </select>
        </label>
        {(['paper', 'ink'] as const).map((of) => (
          <label key={of}>
            <span className="eyebrow block">{of === 'paper' ? 'Paper' : 'Ink'}</span>
            <input
              type="color"
              className="h-8 w-14"
              value={wrap.look[of]}
              onChange={(event) => look({ [of]: event.target.value }, of)}
            />
          </label>
        ))}
      </div>
      <LogoField />
    </section>
  );
}
