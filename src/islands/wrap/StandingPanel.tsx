import { Check, CircleDashed, X } from 'lucide-react';
import { conditionSaid } from '../../core/paperwork/conditions';
import type { CheckedItem } from '../../core/labels/checklist';
import { MARKET_RULES_AS_OF, marketRules, type MarketItem } from '../../rulebook/markets';
import { dayInWords, MARKET_WORDS, STANDING_WORDS } from '../../ui/words';
import { marketView, useDesk } from './context';

const STATE_WORDS = { seen: 'seen', missing: 'not yet', yours: 'yours to tick' } as const;

function Item({ checked }: { checked: CheckedItem<MarketItem> }) {
  const { wrap, market, change } = useDesk();
  const { item, state, because } = checked;
  const key = `${market} ${item.id}`;
  const isTicked = wrap.ticked.includes(key);
  const Mark =
    state === 'seen' || (state === 'yours' && isTicked) ? Check : state === 'missing' ? X : CircleDashed;
  const words = (
    <span className="leading-snug">
      {item.text}
      {because && <span className={state === 'missing' ? 'font-medium' : ''}>: {because}</span>}
      <span className="font-narrow text-soft">
        {' '}
        · {item.source}, {STANDING_WORDS[item.standing]}
      </span>
    </span>
  );
  if (state !== 'yours') {
    return (
      <li className="flex items-start gap-2 border-b border-hair py-0.5">
        <Mark
          size={17}
          className={`mt-0.5 shrink-0 ${state === 'missing' ? 'text-madder' : ''}`}
          aria-hidden="true"
        />
        <span>
          <span className="sr-only">{STATE_WORDS[state]}: </span>
          {words}
        </span>
      </li>
    );
  }
  return (
    <li className="border-b border-hair py-0.5">
      <label className="flex cursor-pointer items-start gap-2">
        <input
          type="checkbox"
          className="accent-ultra"
          checked={isTicked}
          onChange={(event) => {
            const others = wrap.ticked.filter((one) => one !== key);
            change({ ticked: event.target.checked ? [...others, key] : others }, `tick ${key}`);
          }}
        />
        {words}
      </label>
    </li>
  );
}

/** What the bar is in the market's law, and what that asks for: what is seen, what is missing, what is yours. */
export function StandingPanel() {
  const desk = useDesk();
  const { market } = desk;
  const { standing, items, colours } = marketView(desk, market);
  const rules = marketRules(market);
  const asked = desk.data.conditions.filter(
    ({ condition }) =>
      condition.markets.includes(market) && !(condition.unlessSoap && standing.regime === 'soap'),
  );
  const barred = colours.filter(({ permission }) => permission !== 'permitted');
  return (
    <section aria-label="Standing" className="py-2">
      <p>
        {MARKET_WORDS[market]}: this bar is{' '}
        <strong className="font-semibold">{rules.regimes[standing.regime]}</strong>
        {standing.because.length > 0 && `: ${standing.because.join('; ')}`}.
        {standing.assumed.map((one) => ` ${one}`)}
      </p>
      <p>
        <a
          className="text-ultra underline"
          href={`/bars/${encodeURIComponent(desk.data.product.id)}/file?market=${market}`}
        >
          The product&rsquo;s file for {MARKET_WORDS[market]}
        </a>{' '}
        <span className="text-soft">with what is missing in it</span>
      </p>
      <ul className="mt-1">
        {items.map((checked) => (
          <Item key={checked.item.id} checked={checked} />
        ))}
      </ul>
      {asked.length > 0 && (
        <ul aria-label="What only a paper shows" className="mt-1">
          {asked.map((stand) => (
            <li
              key={`${stand.material} ${stand.condition.id}`}
              className={stand.state === 'notMet' ? 'font-medium text-madder' : ''}
            >
              {conditionSaid(stand)}{' '}
              <a
                className="text-ultra underline"
                href={`/cupboard?material=${encodeURIComponent(stand.material)}`}
              >
                in the cupboard
              </a>
            </li>
          ))}
        </ul>
      )}
      {barred.length > 0 && (
        <ul className="mt-1">
          {barred.map(({ name, materials, permission }) => (
            <li key={name}>
              <span className="font-medium">{name}</span> ({materials.join(', ')}):{' '}
              {permission === 'notPermitted'
                ? 'not let in as a colour there.'
                : 'not on the colour list here; ask before it is used as a colour.'}
            </li>
          ))}
        </ul>
      )}
      <p className="eyebrow mt-1">
        Notes as of {dayInWords(MARKET_RULES_AS_OF)}. They help to apply the rules; the texts, and a qualified
        assessor where one is asked for, decide.
      </p>
    </section>
  );
}
