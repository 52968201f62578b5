import type { ReadSentence } from '../../core/claims/find';
import type { ClaimClass, Language } from '../../core/claims/types';
import { pageLanguage } from '../../core/paperwork/page-language';
import { useDesk } from './context';
import { useSayPhrase } from './OwnPhrases';

/** Characters of a phrase that the house keeps. */
const LONGEST_PHRASE = 100;

const LANGUAGE_OF: Record<string, Language> = { deu: 'de', fra: 'fr', spa: 'es' };

/** What a reader may say of a sentence. */
const ANSWERS: readonly [ClaimClass, string][] = [
  ['plain', 'Promises nothing'],
  ['cosmetic', 'A look or feel of skin'],
  ['medicine', 'Acts on the body'],
  ['absolute', 'Without bounds'],
];

/** The words of a phrase as far as the house keeps them, whole words only. */
function phraseOf(say: string): string {
  return say.length <= LONGEST_PHRASE ? say : say.slice(0, say.lastIndexOf(' ', LONGEST_PHRASE));
}

/** Says of a sentence what it promises, in the language that the description is in. */
function useAnswer({ say: words }: ReadSentence) {
  const { wrap } = useDesk();
  const { say, busy, faults } = useSayPhrase();
  const language = LANGUAGE_OF[pageLanguage(wrap.description) ?? ''] ?? 'en';
  const answer = (kind: ClaimClass) => void say({ say: phraseOf(words), class: kind, language });
  const told = faults.map(({ message }) => (
    <span key={message} role="alert" className="block text-madder">
      {message}
    </span>
  ));
  return { answer, busy, told };
}

function Unknown({ sentence }: { sentence: ReadSentence }) {
  const { answer, busy, told } = useAnswer(sentence);
  return (
    <li className="border-b border-hair py-1 leading-snug">
      <span className="font-medium">“{sentence.words}”</span>
      <span className="block">
        {ANSWERS.map(([kind, words]) => (
          <button
            key={kind}
            type="button"
            disabled={busy}
            className="mr-3 cursor-pointer text-ultra underline"
            aria-label={`“${sentence.words}”: ${words}`}
            onClick={() => answer(kind)}
          >
            {words}
          </button>
        ))}
      </span>
      {told}
    </li>
  );
}

function Plain({ sentence }: { sentence: ReadSentence }) {
  const { answer, busy, told } = useAnswer(sentence);
  return (
    <li className="border-b border-hair py-0.5 leading-snug">
      <label className="flex items-baseline justify-between gap-3">
        <span>“{sentence.words}”</span>
        <select
          className="field shrink-0 border border-line"
          aria-label={`What “${sentence.words}” promises`}
          disabled={busy}
          value="plain"
          onChange={(event) => answer(event.target.value as ClaimClass)}
        >
          {ANSWERS.map(([kind, words]) => (
            <option key={kind} value={kind}>
              {words}
            </option>
          ))}
        </select>
      </label>
      {told}
    </li>
  );
}

/** Sentences in which no promise was found: those that speak of the body are asked about, the others can be read again. */
export function Sentences() {
  const { data, sentences } = useDesk();
  const unknown = sentences.filter(({ reading }) => reading === 'unknown');
  const plain = sentences.filter(({ reading, words }) => reading === 'plain' && words !== data.product.name);
  return (
    <>
      {unknown.length > 0 && (
        <section aria-label="Sentences to read yourself" className="pt-1">
          <p>These speak of skin or body in words that are not known here. What do they promise?</p>
          <ul>
            {unknown.map((sentence) => (
              <Unknown key={sentence.from} sentence={sentence} />
            ))}
          </ul>
        </section>
      )}
      {plain.length > 0 && (
        <details>
          <summary className="cursor-pointer py-1 text-ultra">
            {plain.length === 1 ? 'One sentence' : `${plain.length} sentences`} read as plain
          </summary>
          <p className="text-soft">
            Promises are found by their words. Of sentences written for a trial and never seen before, about
            one promise in five was not known: read these yourself.
          </p>
          <ul>
            {plain.map((sentence) => (
              <Plain key={sentence.from} sentence={sentence} />
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
