import { useState } from 'react';
import { readNumber } from '../../core/quantities/number';
import { address, send } from '../../ui/api';
import { guarded } from '../../ui/Guarded';
import { useScale } from './scale';

const HANDS = [
  ['zero', 'Press zero'],
  ['lift', 'Lift the vessel off and put it back'],
  ['knock', 'Knock against it'],
  ['wake', 'Wake it'],
  ['unplug', 'Unplug it'],
  ['plug', 'Plug it in'],
  ['reset', 'Empty it and begin anew'],
] as const;

/** The stand-in's own small panel: pour with a hand, or let it pour by itself. */
function StandInPanelIsland({ readabilityG }: { readabilityG: number }) {
  const scale = useScale('the practice scale', 'panel', readabilityG);
  const [text, setText] = useState('100');
  const [says, setSays] = useState('');
  const g = readNumber(text);
  const act = async (what: string, more: object = {}) => {
    const answer = await send<{ trueG: number }>('POST', address('scale', 'stand-in'), { do: what, ...more });
    setSays(
      answer.ok ? `In the vessel, truly: ${answer.body.trueG.toFixed(1)} g` : answer.faults[0]!.message,
    );
  };
  const shown = scale.following.recent.at(-1);
  return (
    <section className="sheet grid gap-3" aria-label="Stand-in for a scale">
      <p className="text-4xl font-semibold tabular-nums">
        {scale.state === 'ok' && shown ? `${(shown.g - scale.following.offsetG).toFixed(1)} g` : scale.state}
      </p>
      <p role="status" className="text-soft">
        {says}
      </p>
      <label>
        <span className="eyebrow block">Grams</span>
        <input
          className="field w-32"
          inputMode="decimal"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="action"
          disabled={!Number.isFinite(g)}
          onClick={() => void act('pour', { g, seconds: 4 })}
        >
          Pour it in four seconds
        </button>
        <button
          type="button"
          className="action"
          disabled={!Number.isFinite(g)}
          onClick={() => void act('load', { g })}
        >
          Put it on at once
        </button>
        {HANDS.map(([what, words]) => (
          <button key={what} type="button" className="action" onClick={() => void act(what)}>
            {words}
          </button>
        ))}
      </div>
    </section>
  );
}

export const StandInPanel = guarded('The stand-in', StandInPanelIsland);
