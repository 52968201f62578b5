import { useEffect, useState } from 'react';
import type { Uses } from '../core/records/cupboard';
import { address, send } from './api';

/** The bars that use a material, asked for when it is looked at. */
export function useBarsUsing(id: string): Uses | null {
  const [found, setFound] = useState<{ id: string; uses: Uses } | null>(null);
  useEffect(() => {
    let isWanted = true;
    void send<Uses>('GET', address('materials', id, 'uses')).then((answer) => {
      if (isWanted && answer.ok) setFound({ id, uses: answer.body });
    });
    return () => {
      isWanted = false;
    };
  }, [id]);
  return found?.id === id ? found.uses : null;
}

/** Links to the bars that use a material, and how many more there are. */
export function BarsUsing({ id }: { id: string }) {
  const uses = useBarsUsing(id);
  if (!uses) return <p role="status">Looking…</p>;
  const more = uses.count - uses.some.length;
  return (
    <ul className="flex flex-wrap gap-x-4">
      {uses.some.map(({ product, name, through }) => (
        <li key={`${product} ${through}`}>
          <a className="text-ultra underline" href={`/bars/${product}`}>
            {name}
          </a>
          {through && <span className="text-soft"> through {through}</span>}
        </li>
      ))}
      {more > 0 && <li className="text-soft">and {more} more</li>}
    </ul>
  );
}
