/** Fields of a record form, each with its label, its fault and its unit tied to it. */
import { useId, type ReactNode } from 'react';
import { Controller, get, useFormContext, type FieldValues, type RegisterOptions } from 'react-hook-form';
import { readNumberOrNull } from '../../core/quantities/number';
import { DayField } from '../DayField';

interface Field {
  name: string;
  label: string;
  /** A width class. */
  width?: string;
}

function useFault(name: string): string | undefined {
  const { formState } = useFormContext();
  const error: { message?: string } | undefined = get(formState.errors, name);
  return error?.message;
}

/** A label above what it names, and the fault under it. */
function Named({ id, label, name, children }: Field & { id: string; children: ReactNode }) {
  const fault = useFault(name);
  return (
    <div>
      <label htmlFor={id} className="eyebrow block">
        {label}
      </label>
      {children}
      {fault && (
        <p id={`${id}-fault`} className="text-[0.82rem] leading-tight text-madder">
          {fault}
        </p>
      )}
    </div>
  );
}

/** What ties an input to its label, its form and its fault. */
function useInput(name: string, rules?: RegisterOptions<FieldValues, string>) {
  const { register } = useFormContext();
  const id = useId();
  const fault = useFault(name);
  return {
    id,
    props: {
      id,
      ...register(name, rules),
      'aria-invalid': fault ? (true as const) : undefined,
      'aria-describedby': fault ? `${id}-fault` : undefined,
    },
  };
}

interface TextProps extends Field {
  hint?: string;
  /** What is said where nothing stands in it; left out, it may be empty. */
  needed?: string;
}

export function TextIn({ hint, needed, width = 'w-44', ...field }: TextProps) {
  const { id, props } = useInput(field.name, needed ? { required: needed } : undefined);
  return (
    <Named id={id} {...field}>
      <input className={`field ${width}`} placeholder={hint} autoComplete="off" {...props} />
    </Named>
  );
}

export function LinesIn({ hint, rows, width = 'w-full', ...field }: TextProps & { rows: number }) {
  const { id, props } = useInput(field.name);
  return (
    <Named id={id} {...field}>
      <textarea className={`field border border-line ${width}`} rows={rows} placeholder={hint} {...props} />
    </Named>
  );
}

interface NumberProps extends Field {
  least: number;
  most: number;
  isNeeded?: boolean;
  hint?: string;
}

/** A number as text; a decimal comma is read. */
export function NumberIn({ least, most, isNeeded = false, hint, width = 'w-20', ...field }: NumberProps) {
  const validate = (text: string) => {
    const value = readNumberOrNull(text);
    if (value === null) return isNeeded ? `Give a number from ${least} to ${most}.` : true;
    return (value >= least && value <= most) || `Give a number from ${least} to ${most}.`;
  };
  const { id, props } = useInput(field.name, { validate });
  return (
    <Named id={id} {...field}>
      <input
        className={`field tabular-nums ${width}`}
        inputMode="decimal"
        autoComplete="off"
        placeholder={hint}
        {...props}
      />
    </Named>
  );
}

interface ChoiceProps extends Field {
  options: readonly (readonly [string, string])[];
  /** Told where nothing is chosen, where something has to be. */
  needed?: string;
}

export function ChoiceIn({ options, needed, width = '', ...field }: ChoiceProps) {
  const { id, props } = useInput(field.name, needed ? { required: needed } : undefined);
  return (
    <Named id={id} {...field}>
      <select className={`field max-w-full ${width}`} {...props}>
        {needed && <option value="">choose</option>}
        {options.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </Named>
  );
}

/** A box to tick; with a value, one of several that stand in one list. */
export function TickIn({ name, label, value }: Field & { value?: string }) {
  const { register } = useFormContext();
  return (
    <label className="flex min-h-6 cursor-pointer items-center gap-1.5">
      <input type="checkbox" className="accent-ultra" value={value} {...register(name)} />
      {label}
    </label>
  );
}

/** A day; the value is YYYY-MM-DD, or empty. */
export function DayIn({
  name,
  needed,
  ...shown
}: Field & { needed?: string; isLabelHidden?: boolean; isDisabled?: boolean }) {
  const { control } = useFormContext();
  const fault = useFault(name);
  return (
    <Controller
      control={control}
      name={name}
      rules={needed ? { required: needed } : undefined}
      render={({ field }) => (
        <DayField
          {...shown}
          value={field.value as string}
          fault={fault}
          onChange={field.onChange}
          onBlur={field.onBlur}
        />
      )}
    />
  );
}
