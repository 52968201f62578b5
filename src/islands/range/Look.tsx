import { useEffect, useState } from 'react';
import { MARKETS } from '../../core/formula/types';
import { EVERYTHING } from '../../core/range/arrange';
import type { RangeLook, RangeView, RangeViews } from '../../core/records/range';
import { address, send } from '../../ui/api';
import { Select } from '../../ui/Select';
import { TextField } from '../../ui/TextField';
import { MARKET_WORDS } from '../../ui/words';

const SHOW_WORDS: readonly (readonly [RangeLook['show'], string])[] = [
  ['all', 'all bars'],
  ['needs', 'what needs a hand'],
  ['over', 'over or at risk'],
  ['unproven', 'unproven'],
  ['differs', 'labels that differ'],
  ['away', 'put away'],
];
const GROUP_WORDS: readonly (readonly [RangeLook['group'], string])[] = [
  ['none', 'nothing'],
  ['scent', 'scent'],
  ['collection', 'collection'],
  ['market', 'markets'],
  ['bound', 'what binds'],
];
const isSame = (a: RangeLook, b: RangeLook) =>
  a.find === b.find && a.show === b.show && a.market === b.market && a.group === b.group;

interface Props {
  look: RangeLook;
  onLook: (look: RangeLook) => void;
}

/** Ways of looking kept by name; they are the house's, not this browser's. */
function Views({ look, onLook }: Props) {
  const [kept, setKept] = useState<RangeViews>({ views: [], revision: 0 });
  const [name, setName] = useState('');
  useEffect(() => {
    void send<RangeViews>('GET', address('range', 'views')).then(
      (answer) => answer.ok && setKept(answer.body),
    );
  }, []);
  const put = async (views: RangeView[]) => {
    const answer = await send<RangeViews>('PUT', address('range', 'views'), {
      revision: kept.revision,
      views,
    });
    if (answer.ok) setKept(answer.body);
    return answer.ok && answer.status === 200;
  };
  const add = async () => {
    const others = kept.views.filter((one) => one.name !== name.trim());
    if (await put([...others, { name: name.trim(), ...look }])) setName('');
  };
  const current = kept.views.find((one) => isSame(one, look));
  const isPlain = isSame(look, EVERYTHING);
  return (
    <div className="flex flex-wrap items-end gap-x-3 gap-y-1" role="group" aria-label="Kept views">
      {kept.views.map((view) => (
        <button
          key={view.name}
          type="button"
          className="action py-0"
          aria-pressed={view === current}
          onClick={() => onLook(view)}
        >
          {view.name}
        </button>
      ))}
      {!isPlain && !current && (
        <>
          <TextField label="Keep this view as" value={name} onChange={setName} />
          <button type="button" className="action" disabled={name.trim() === ''} onClick={() => void add()}>
            Keep
          </button>
        </>
      )}
      {current && (
        <button
          type="button"
          className="action py-0"
          onClick={() => void put(kept.views.filter((one) => one !== current))}
        >
          Forget “{current.name}”
        </button>
      )}
      {!isPlain && (
        <button type="button" className="action py-0" onClick={() => onLook(EVERYTHING)}>
          Show everything
        </button>
      )}
    </div>
  );
}

/** What of the range is looked at, and how it is arranged. */
export function Look({ look, onLook }: Props) {
  const change = (part: Partial<RangeLook>) => onLook({ ...look, ...part });
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-2 pb-1">
      <TextField label="Find" value={look.find} onChange={(find) => change({ find })} />
      <Select label="Show" value={look.show} options={SHOW_WORDS} onChange={(show) => change({ show })} />
      <Select
        label="Sold in"
        value={look.market ?? ''}
        options={[['', 'any market'], ...MARKETS.map((one) => [one, MARKET_WORDS[one]] as const)]}
        onChange={(market) => change({ market: market === '' ? null : market })}
      />
      <Select
        label="Group by"
        value={look.group}
        options={GROUP_WORDS}
        onChange={(group) => change({ group })}
      />
      <Views look={look} onLook={onLook} />
    </div>
  );
}
