import { useEffect, useState } from 'react';
import type { Hand } from '../core/hands/hand';
import { address, send } from './api';
import { Hands } from './Hands';

/** What a screen of its own tells already. */
const OF_FORMULA = /^bar .* (?:over|risk|unproven|fault)$/;

/** What one bar or one batch waits for, a press away beside its name; nothing where nothing does. */
export function HandsOf({ of, id, beside }: { of: 'bar' | 'batch'; id: string; beside: string }) {
  const [hands, setHands] = useState<readonly Hand[]>([]);
  useEffect(() => {
    let isGone = false;
    const query = `${address('hands')}?${of}=${encodeURIComponent(id)}`;
    void send<{ hands: Hand[] }>('GET', query).then((answer) => {
      if (isGone || !answer.ok) return;
      setHands(answer.body.hands.filter((hand) => of === 'batch' || !OF_FORMULA.test(hand.id)));
    });
    return () => {
      isGone = true;
    };
  }, [of, id]);
  if (hands.length === 0) return null;
  return (
    <details className="relative">
      <summary className="cursor-pointer text-ultra">
        {hands.length === 1 ? '1 thing needs a hand' : `${hands.length} things need a hand`}
      </summary>
      <div className="absolute z-20 w-[min(24rem,85vw)] border border-line bg-sheet p-2 shadow-md max-sm:static max-sm:w-auto">
        <Hands hands={hands} atOnce={hands.length} beside={beside} />
      </div>
    </details>
  );
}
