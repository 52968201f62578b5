/** A page of the batch for whoever buys it, a card for the stall, and rows for a shop: what is on them is chosen here. */
import { CARD_PARTS, USUAL_PARTS, type CardChoice, type CardPart } from '../../core/labels/card';
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

export function CardPanel({ download }: { download: (as: string) => void }) {
  const { wrap, data, change } = useDesk();
  const choice = wrap.card ?? { shown: [...USUAL_PARTS] };
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
          {choice.shown.includes('price') && (
            <p className="text-soft">
              {data.priceSaid === ''
                ? 'No price is said of this bar yet: say it '
                : `A bar is ${data.priceSaid}, as said `}
              <a className="text-ultra underline" href={`/bars/${data.product.id}`}>
                under its cost on the worktable
              </a>
              .
            </p>
          )}
          <div className="flex flex-wrap items-end gap-2">
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
