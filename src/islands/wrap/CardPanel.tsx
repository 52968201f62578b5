/** A page of the batch for whoever buys it, a card for the stall, and rows for a shop: what is on them is chosen here. */
import { CARD_PARTS, USUAL_PARTS, type CardChoice, type CardPart } from '../../core/labels/card';
import { readNumberOrNull } from '../../core/quantities/number';
import { useState } from 'react';
import { useDesk } from './context';

const PART_WORDS: Record<CardPart, string> = {
  description: 'description',
  ingredients: 'ingredients',
  use: 'how to use it',
  cautions: 'cautions',
  net: 'net content',
  lightest: 'lightest bar',
  made: 'the day it was made',
  cured: 'days of its cure',
  durability: 'how long it keeps',
  batch: 'batch code',
  responsible: 'name and address',
  price: 'price',
};

const OUTS = [
  ['card', 'Page'],
  ['price', 'Card for the stall'],
  ['card-text', 'Text'],
  ['card-csv', 'CSV for a shop'],
  ['card-data', 'Structured data'],
  ['qr', 'Code to the page'],
] as const;

function Price({ choice, put }: { choice: CardChoice; put: (choice: CardChoice) => void }) {
  const [text, setText] = useState(choice.price === null ? '' : String(choice.price));
  const price = readNumberOrNull(text);
  const isWrong = price !== null && !(price >= 0 && price <= 1e5);
  return (
    <label>
      <span className="eyebrow block">Price of a bar</span>
      <input
        className="field w-24 tabular-nums"
        inputMode="decimal"
        value={text}
        aria-invalid={isWrong}
        onChange={(event) => {
          setText(event.target.value);
          const read = readNumberOrNull(event.target.value);
          if (read === null || (read >= 0 && read <= 1e5)) put({ ...choice, price: read });
        }}
      />
      {isWrong && <span role="alert"> Give an amount, such as 7.50.</span>}
    </label>
  );
}

export function CardPanel({ download }: { download: (as: string) => void }) {
  const { wrap, data, change } = useDesk();
  const choice = wrap.card ?? { shown: [...USUAL_PARTS], price: null };
  const put = (card: CardChoice) => change({ card }, 'card');
  const toggle = (part: CardPart) =>
    put({
      ...choice,
      shown: choice.shown.includes(part)
        ? choice.shown.filter((one) => one !== part)
        : [...choice.shown, part],
    });
  return (
    <section aria-label="For the buyer" className="mt-4 border-t border-line pt-2">
      <h2 className="text-lg">For the buyer</h2>
      {data.batch === null ? (
        <p className="text-soft">
          A page, a stall’s card and rows for a shop are of one batch: choose one above.
        </p>
      ) : (
        <>
          <p>
            One static page of batch {data.batch.code}, without scripts, that tells what is ticked and nothing
            else.{' '}
            <span className="text-soft">
              {data.cardAddress === null
                ? 'Say in the House where such pages stand on your own site, and the label can carry a code that leads there.'
                : `Its place: ${data.cardAddress}`}
            </span>
          </p>
          <fieldset className="my-1 flex flex-wrap gap-x-4 gap-y-0.5">
            <legend className="eyebrow">It shows</legend>
            {CARD_PARTS.map((part) => (
              <label key={part} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="accent-ultra"
                  checked={choice.shown.includes(part)}
                  onChange={() => toggle(part)}
                />
                {PART_WORDS[part]}
              </label>
            ))}
          </fieldset>
          <div className="flex flex-wrap items-end gap-2">
            <Price choice={choice} put={put} />
            {OUTS.filter(([as]) => as !== 'qr' || data.cardAddress !== null).map(([as, words]) => (
              <button key={as} type="button" className="action py-0" onClick={() => download(as)}>
                {words}
              </button>
            ))}
          </div>
        </>
      )}
    </section>
  );
}
