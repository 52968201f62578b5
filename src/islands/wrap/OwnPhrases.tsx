import { useState } from 'react';
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
import { CLAIM_CLASS_WORDS } from '../../ui/words';
import { useDesk } from './context';

interface StoredPhrases {
  phrases: OwnPhrase[];
  revision: number;
}

const CLASS_OPTIONS = CLAIM_CLASSES.map((one) => [one, CLAIM_CLASS_WORDS[one]] as const);
const LANGUAGE_OPTIONS = Object.entries(LANGUAGE_NAMES);

interface Draft {
  say: string;
  class: ClaimClass;
  language: Language;
}

/** A phrase that is too long or empty is told at the words, whichever place in the list it has. */
const fieldOf = (path: string) => (path.startsWith('phrases') ? 'say' : null);

/** Phrases the maker adds to those that ship. */
export function OwnPhrases() {
  const { data, ownPhrases, setOwnPhrases } = useDesk();
  const [revision, setRevision] = useState(data.phrasesRevision);
  const record = useRecordForm<Draft, StoredPhrases>({
    defaults: { say: '', class: 'cosmetic', language: 'en' },
    fieldOf,
    onStale: (newer) => {
      setRevision(newer.revision);
      setOwnPhrases(newer.phrases);
    },
  });
  const { busy, keep } = record.keeping;
  const keepAll = async (phrases: OwnPhrase[]) => {
    const kept = await keep(() => send<StoredPhrases>('PUT', address('phrases'), { phrases, revision }));
    if (!kept) return;
    setRevision(kept.revision);
    setOwnPhrases(kept.phrases);
    record.form.setValue('say', '');
  };
  return (
    <details>
      <summary className="cursor-pointer text-ultra">My own phrases</summary>
      <ul>
        {ownPhrases.map((phrase, index) => (
          <li key={phrase.say + index} className="flex items-baseline justify-between border-b border-hair">
            <span>
              “{phrase.say}” {CLAIM_CLASS_WORDS[phrase.class]}, {LANGUAGE_NAMES[phrase.language]}
            </span>
            <button
              type="button"
              className="cursor-pointer text-ultra underline"
              aria-label={`Remove ${phrase.say}`}
              onClick={() => void keepAll(ownPhrases.filter((_, at) => at !== index))}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      <RecordFields
        record={record}
        onKeep={(draft) => keepAll([...ownPhrases, draft])}
        label="A phrase of your own"
        className="mt-1 flex flex-wrap items-end gap-2"
      >
        <TextIn name="say" label="Words, in order" width="w-40" needed="Write the words." />
        <ChoiceIn name="class" label="Counts as" options={CLASS_OPTIONS} />
        <ChoiceIn name="language" label="In" options={LANGUAGE_OPTIONS} />
        <button type="submit" className="action py-0" disabled={busy}>
          Add
        </button>
      </RecordFields>
    </details>
  );
}
