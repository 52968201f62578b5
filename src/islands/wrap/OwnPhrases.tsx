import {
  CLAIM_CLASSES,
  LANGUAGE_NAMES,
  type ClaimClass,
  type Language,
  type OwnPhrase,
} from '../../core/claims/types';
import { address, send } from '../../ui/api';
import { ChoiceIn, TextIn } from '../../ui/form/fields';
import { RecordFields, useRecordForm } from '../../ui/form/record-form';
import { useKeeping } from '../../ui/keeping';
import { CLAIM_CLASS_WORDS } from '../../ui/words';
import { useDesk, type StoredPhrases } from './context';

const CLASS_OPTIONS = CLAIM_CLASSES.map((one) => [one, CLAIM_CLASS_WORDS[one]] as const);
const LANGUAGE_OPTIONS = Object.entries(LANGUAGE_NAMES);

interface Draft {
  say: string;
  class: ClaimClass;
  language: Language;
}

/** A phrase that is too long or empty is told at the words, whichever place in the list it has. */
const fieldOf = (path: string) => (path.startsWith('phrases') ? 'say' : null);

/** Keeps the house's own phrases; answers whether they were taken. */
function usePutPhrases({ keep }: Pick<ReturnType<typeof useKeeping>, 'keep'>) {
  const { phrases, setPhrases } = useDesk();
  return async (next: OwnPhrase[]): Promise<boolean> => {
    const body = { phrases: next, revision: phrases.revision };
    const kept = await keep(() => send<StoredPhrases>('PUT', address('phrases'), body));
    if (kept) setPhrases(kept);
    return kept !== null;
  };
}

/** Says of words what they promise, as a phrase of the maker's own. */
export function useSayPhrase() {
  const { phrases, setPhrases } = useDesk();
  const keeping = useKeeping<StoredPhrases>(setPhrases);
  const put = usePutPhrases(keeping);
  const say = (phrase: OwnPhrase) => put([...phrases.phrases, phrase]);
  return { say, busy: keeping.busy, faults: keeping.faults };
}

/** Phrases the maker adds to those that ship. */
export function OwnPhrases() {
  const { phrases, setPhrases } = useDesk();
  const own = phrases.phrases;
  const record = useRecordForm<Draft, StoredPhrases>({
    defaults: { say: '', class: 'cosmetic', language: 'en' },
    fieldOf,
    onStale: setPhrases,
  });
  const put = usePutPhrases(record.keeping);
  const add = async (draft: Draft) => {
    if (await put([...own, draft])) record.form.setValue('say', '');
  };
  return (
    <details>
      <summary className="cursor-pointer py-1 text-ultra">My own phrases</summary>
      <ul>
        {own.map((phrase, index) => (
          <li key={phrase.say + index} className="flex items-baseline justify-between border-b border-hair">
            <span>
              “{phrase.say}” {CLAIM_CLASS_WORDS[phrase.class]}, {LANGUAGE_NAMES[phrase.language]}
            </span>
            <button
              type="button"
              className="cursor-pointer text-ultra underline"
              aria-label={`Remove ${phrase.say}`}
              onClick={() => void put(own.filter((_, at) => at !== index))}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      <RecordFields
        record={record}
        onKeep={add}
        label="A phrase of your own"
        className="mt-1 flex flex-wrap items-end gap-2"
      >
        <TextIn name="say" label="Words, in order" width="w-40" needed="Write the words." />
        <ChoiceIn name="class" label="Counts as" options={CLASS_OPTIONS} />
        <ChoiceIn name="language" label="In" options={LANGUAGE_OPTIONS} />
        <button type="submit" className="action py-0" disabled={record.keeping.busy}>
          Add
        </button>
      </RecordFields>
    </details>
  );
}
