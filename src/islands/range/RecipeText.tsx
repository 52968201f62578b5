import { useMemo, useState } from 'react';
import { writeAmount } from '../../core/quantities/amount';
import type { Habits } from '../../core/records/house';
import type { Product } from '../../core/records/product';
import { address, send } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { habits, rememberScentPercents } from '../../ui/habits';
import { useKeeping } from '../../ui/keeping';
import { Names, useMatches } from '../../ui/MaterialNames';
import { recipeOf, type Chosen, type Recipe } from './recipe';

const EXAMPLE = '500 g olive, 250 coconut, 33 % water, 2 tsp pink clay, superfat 6 %';

type ScentPercents = NonNullable<Habits['scentPercents']>;
const OF_WORDS: Record<ScentPercents, string> = {
  '%fats': 'of the fats',
  '%pour': 'of the whole',
};

/** A bare percent of a scent is of one thing with one maker and of another with the next: said once for the house. */
function AskScents({ onSaid }: { onSaid: (said: ScentPercents) => void }) {
  return (
    <p className="flex flex-wrap items-baseline gap-2 border-l-4 border-ink pl-3">
      Percents of scents are, in this house:
      {(Object.keys(OF_WORDS) as ScentPercents[]).map((one) => (
        <button key={one} type="button" className="action py-0" onClick={() => onSaid(one)}>
          {OF_WORDS[one]}
        </button>
      ))}
    </p>
  );
}

function Reads({ recipe, titleOf }: { recipe: Recipe; titleOf: (id: string) => string }) {
  const { formula, notes, faults } = recipe;
  return (
    <>
      {faults.map((message) => (
        <p key={message} role="alert" className="text-madder">
          {message}
        </p>
      ))}
      {formula && (
        <p aria-label="It reads as">
          {formula.lines
            .map(({ material, amount }) => `${titleOf(material)} ${writeAmount(amount)}`)
            .join(' · ')}
        </p>
      )}
      {notes.map((note) => (
        <p key={note} className="text-soft">
          {note}
        </p>
      ))}
    </>
  );
}

/** What is typed, its names matched, what was said by hand, and the bar made of it. */
function useRecipe(text: string) {
  const [chosen, setChosen] = useState<Chosen>({});
  const [scentPercents, setScentPercents] = useState(() => habits().scentPercents);
  const first = useMemo(
    () => recipeOf(text, { matches: new Map(), chosen: {}, weights: habits().weights, scentPercents: null }),
    [text],
  );
  const { matches, isMatching } = useMatches(first.names);
  const recipe = useMemo(
    () => recipeOf(text, { matches, chosen, weights: habits().weights, scentPercents }),
    [text, matches, chosen, scentPercents],
  );
  const say = (said: ScentPercents) => {
    setScentPercents(said);
    void rememberScentPercents(said);
  };
  const titleOf = (id: string) =>
    Object.values(chosen).find((one) => one.id === id)?.title ??
    [...matches.values()].find((one) => one?.id === id)?.title ??
    id;
  return { recipe, matches, isMatching, chosen, setChosen, say, titleOf };
}

/** A bar out of a recipe as it is typed or pasted, with questions where it is not sure. */
export function RecipeText({ first, name }: { first: string; name: string }) {
  const [text, setText] = useState(first);
  const { recipe, matches, isMatching, chosen, setChosen, say, titleOf } = useRecipe(text);
  const { busy, faults, keep } = useKeeping();
  const isHeld = !recipe.formula || recipe.faults.length > 0 || recipe.asksScents || isMatching;
  const make = async () => {
    const body = { name: name.trim() || recipe.name, formula: recipe.formula };
    const made = await keep((key) => send<Product>('POST', address('products'), body, key));
    if (made) location.assign(`/bars/${made.id}`);
  };
  return (
    <form
      className="grid max-w-3xl gap-2"
      aria-label="A bar from a recipe"
      onSubmit={(event) => {
        event.preventDefault();
        if (!isHeld && !busy) void make();
      }}
    >
      <label>
        <span className="eyebrow block">A recipe as text, typed or pasted; Ctrl+Enter makes the bar</span>
        <textarea
          className="field w-full"
          rows={3}
          autoFocus
          value={text}
          placeholder={EXAMPLE}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && (event.ctrlKey || event.metaKey))
              event.currentTarget.form!.requestSubmit();
          }}
        />
      </label>
      {text.trim() !== '' && !isMatching && <Reads recipe={recipe} titleOf={titleOf} />}
      {isMatching && <p role="status">Looking up the names…</p>}
      {recipe.asksScents && <AskScents onSaid={say} />}
      <Names
        names={recipe.names}
        matches={matches}
        taken={(one) => {
          const title = chosen[one]?.title ?? matches.get(one)?.title;
          return title ? `taken for ${title}` : null;
        }}
        onFound={(one, { id, name: title, kind }) => setChosen({ ...chosen, [one]: { id, title, kind } })}
      />
      <Faults faults={faults} />
      <button
        type="submit"
        className="action action-strong justify-self-start"
        disabled={busy || isHeld || text.trim() === ''}
      >
        Make this bar
      </button>
    </form>
  );
}
