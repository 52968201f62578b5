import { useState, type FormEvent } from 'react';
import { pagesIn, type Answer, type Question } from './ask';

interface Props<Q extends Question = Question> {
  question: Q;
  onAnswer: (answer: Answer) => void;
}

type Of<K extends Question['kind']> = Props<Extract<Question, { kind: K }>>;

/** The word of a locked paper. It is used here alone and kept nowhere. */
function AskWord({ question, onAnswer }: Of<'word'>) {
  const [word, setWord] = useState('');
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        onAnswer(word);
      }}
    >
      <p className="w-full">
        {question.isWrong
          ? 'That is not its word. Try again.'
          : `${question.fileName} is locked. Give the word that opens it; it is kept nowhere.`}
      </p>
      <label>
        <span className="eyebrow block">Word</span>
        <input
          className="field w-56"
          type="password"
          autoComplete="off"
          value={word}
          onChange={(event) => setWord(event.target.value)}
        />
      </label>
      <button type="submit" className="action" disabled={word === ''}>
        Open it
      </button>
    </form>
  );
}

/** Which pages of a long paper. */
function AskPages({ question: { fileName, pages, most }, onAnswer }: Of<'pages'>) {
  const proposed = pages.filter(({ says }) => says !== '').slice(0, most);
  const [text, setText] = useState(proposed.map(({ number }) => number).join(', '));
  const chosen = pagesIn(text, pages.length);
  const isSound = chosen !== null && chosen.length > 0 && chosen.length <= most;
  return (
    <form
      className="grid gap-2"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        if (isSound) onAnswer(chosen);
      }}
    >
      <p>
        {fileName} has {pages.length} pages. Up to {most} are read; these look as if they mattered:
      </p>
      <ul className="max-h-64 overflow-y-auto" tabIndex={0} aria-label="Pages that may matter">
        {proposed.map(({ number, head, says }) => (
          <li key={number} className="border-b border-hair py-0.5">
            <span className="font-medium">Page {number}</span>: {head}{' '}
            <span className="text-soft">({says})</span>
          </li>
        ))}
      </ul>
      <label>
        <span className="eyebrow block">Pages to read</span>
        <input
          className="field w-full"
          value={text}
          placeholder="3, 5-7"
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <button type="submit" className="action justify-self-start" disabled={!isSound}>
        Read these pages
      </button>
    </form>
  );
}

/** Which file of a mail. */
function AskFile({ question: { fileName, files }, onAnswer }: Of<'file'>) {
  return (
    <div className="grid gap-2">
      <p>{fileName} brings several files. Which is the paper?</p>
      {files.map((name, at) => (
        <button
          key={name + at}
          type="button"
          className="action justify-self-start"
          onClick={() => onAnswer(at)}
        >
          {name}
        </button>
      ))}
    </div>
  );
}

/** What has to be said before a paper can be read. */
export function AskPaper({ question, onAnswer }: Props) {
  return (
    <section aria-label="Before it is read" className="border-l-4 border-ultra bg-wash px-3 py-2">
      {question.kind === 'word' && (
        <AskWord key={String(question.isWrong)} question={question} onAnswer={onAnswer} />
      )}
      {question.kind === 'pages' && <AskPages question={question} onAnswer={onAnswer} />}
      {question.kind === 'file' && <AskFile question={question} onAnswer={onAnswer} />}
      <button type="button" className="action mt-2 py-0" onClick={() => onAnswer(null)}>
        Give up
      </button>
    </section>
  );
}
