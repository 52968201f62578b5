import type { Kind } from '../../core/claims/likeness';
import { BY_LIKENESS, type ReadSentence } from '../../core/claims/read';
import type { ClaimClass, ClaimFinding, Language } from '../../core/claims/types';
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
  ['composition', 'What is in it'],
];

const LIKE: Record<Kind, string> = {
  plain: 'what promises nothing',
  medicine: 'what acts on the body',
  border: 'what acts on the body; in the EU and UK a look of skin',
  cosmetic: 'a look or feel of skin',
  absolute: 'what has no bounds',
  composition: 'what is in it',
};

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

/** What a sentence promises, to say by one press. */
function Answers({ sentence }: { sentence: ReadSentence }) {
  const { answer, busy, told } = useAnswer(sentence);
  return (
    <>
      <span className="flex flex-wrap gap-x-3">
        {ANSWERS.map(([kind, words]) => (
          <button
            key={kind}
            type="button"
            disabled={busy}
            className="min-h-6 cursor-pointer text-ultra underline"
            aria-label={`“${sentence.words}”: ${words}`}
            onClick={() => answer(kind)}
          >
            {words}
          </button>
        ))}
      </span>
      {told}
    </>
  );
}

/** What a sentence is most like, where it is like a claim. */
function likeWords({ like }: ReadSentence): string | null {
  if (!like || like.because.length === 0) return null;
  return `Most like ${LIKE[like.kind]}, by ${like.because.map((word) => `“${word}”`).join(' and ')}.`;
}

function Unknown({ sentence }: { sentence: ReadSentence }) {
  return (
    <li className="border-b border-hair py-1 leading-snug">
      <span className="font-medium">“{sentence.words}”</span>{' '}
      <span className="text-soft">{likeWords(sentence)}</span>
      <Answers sentence={sentence} />
    </li>
  );
}

/** Of a claim that was found by what its sentence is like: what else it may be. */
export function OtherReading({ claim }: { claim: ClaimFinding }) {
  const { sentences } = useDesk();
  const sentence = sentences.find(({ from }) => from === claim.from);
  return claim.phrase === BY_LIKENESS && sentence ? <Answers sentence={sentence} /> : null;
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

/** Sentences in which no promise was found: those that may promise something are asked about, the others can be read again. */
export function Sentences() {
  const { data, sentences } = useDesk();
  const unknown = sentences.filter(({ reading }) => reading === 'unknown');
  const plain = sentences.filter(({ reading, words }) => reading === 'plain' && words !== data.product.name);
  return (
    <>
      {unknown.length > 0 && (
        <section aria-label="Sentences to read yourself" className="pt-1">
          <p>No phrase says these, and they may promise something. What do they promise?</p>
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
            Promises are found by their words and by what they are like. Of 624 sentences written for a trial
            and never seen before, 29 were misread without a question: read these yourself.
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
