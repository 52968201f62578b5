/** A form that keeps one record: drafts as text, one request at a time, the server's faults on their fields. */
import { useEffect, type ReactNode } from 'react';
import {
  FormProvider,
  useForm,
  useFormState,
  type DefaultValues,
  type FieldPath,
  type FieldValues,
  type UseFormReturn,
} from 'react-hook-form';
import type { Fault } from '../api';
import { useKeeping, type Keeping } from '../keeping';

interface Options<V extends FieldValues, S> {
  defaults: DefaultValues<V>;
  /** Which field a path of the server speaks of; null leaves the fault at the foot of the form. */
  fieldOf?: (path: string) => FieldPath<V> | null;
  /** Given what stands on file now, where another window kept something in between. */
  onStale?: (newer: S) => void;
}

export interface RecordForm<V extends FieldValues> {
  form: UseFormReturn<V>;
  keeping: Keeping;
  /** Faults that belong to no field here. */
  rest: readonly Fault[];
}

const isField = (values: FieldValues, path: string) => path !== '' && path.split('.')[0]! in values;

/** The state of a form that keeps one record. */
export function useRecordForm<V extends FieldValues, S = never>({
  defaults,
  fieldOf,
  onStale,
}: Options<V, S>): RecordForm<V> {
  const form = useForm<V>({ defaultValues: defaults, mode: 'onTouched' });
  const keeping = useKeeping<S>(onStale);
  const find = (path: string) =>
    fieldOf ? fieldOf(path) : isField(form.getValues(), path) ? (path as FieldPath<V>) : null;
  const { faults } = keeping;
  useEffect(() => {
    faults.forEach(({ path, message }) => {
      const field = find(path);
      if (field) form.setError(field, { type: 'server', message });
    });
    const first = faults.map(({ path }) => find(path)).find((field) => field !== null);
    if (first) form.setFocus(first);
    // Faults are put on their fields once, when they come.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [faults]);
  return { form, keeping, rest: faults.filter(({ path }) => find(path) === null) };
}

/** Every message that stands at a field. */
function messagesOf(errors: object): string[] {
  return Object.values(errors).flatMap((error: unknown) => {
    if (typeof error !== 'object' || error === null) return [];
    const { message, type } = error as { message?: unknown; type?: unknown };
    if (typeof message === 'string' && typeof type === 'string') return [message];
    return messagesOf(error);
  });
}

/** Read out as soon as they come: what stands at fields, for ears only, and what belongs to none. */
function Told({ record }: { record: RecordForm<FieldValues> }) {
  const { errors } = useFormState({ control: record.form.control });
  return (
    <div role="alert" className="w-full text-madder">
      <p className="sr-only">{messagesOf(errors).join(' ')}</p>
      {record.rest.map(({ path, message }) => (
        <p key={path + message}>{message}</p>
      ))}
    </div>
  );
}

interface Props<V extends FieldValues> {
  record: RecordForm<V>;
  onKeep: (draft: V) => Promise<unknown>;
  className?: string;
  label?: string;
  children: ReactNode;
}

/** The form itself; faults without a field stand at its foot. */
export function RecordFields<V extends FieldValues>({
  record,
  onKeep,
  className,
  label,
  children,
}: Props<V>) {
  return (
    <FormProvider {...record.form}>
      <form
        className={className}
        aria-label={label}
        noValidate
        onSubmit={(event) => void record.form.handleSubmit(onKeep)(event)}
      >
        {children}
        <Told record={record as RecordForm<FieldValues>} />
      </form>
    </FormProvider>
  );
}
