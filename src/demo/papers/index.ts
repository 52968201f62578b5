/** The papers that wait in the demo's inbox, each laid out in another way. */
import { dayAfter } from '../../core/quantities/day';
import { brackwaterPapers } from './brackwater';
import { ninefoldPapers } from './ninefold';
import type { DemoPaper } from './types';

function mailAboutVerbena(today: string): DemoPaper {
  const text = `From: Brackwater Aromatics
Subject: Verbena Lane, new limit

Good morning,

as you asked: Verbena Lane (our ref BA-1391-R1) was looked at again under
the 51st edition, dated ${dayAfter(today, -5)}. For bar soap, Category 9, the
maximum in the finished product is now 2,9 %. Flash point 71 °C, vanillin n.d.

Product: Verbena Lane

Kind regards
`;
  return {
    id: 'ba-1391-r1',
    fileName: 'Mail about Verbena Lane.txt',
    mime: 'text/plain',
    receivedOn: dayAfter(today, -5),
    make: () => Promise.resolve(new TextEncoder().encode(text)),
  };
}

/** A certificate for products left on the skin only: it does not speak of bar soap at all. */
function signalLamp(today: string): DemoPaper {
  const text = `Hesper & Dunn Oils
Certificate no. HD-77
Fragrance: Signal Lamp
Date: ${dayAfter(today, -70)}
Amendment 49

Category 4    Fine fragrance      12.0 %
Category 5A   Body lotion          3.1 %
Category 11A  Left on              0.9 %
`;
  return {
    id: 'hd-77',
    fileName: 'HD-77 Signal Lamp.txt',
    mime: 'text/plain',
    receivedOn: dayAfter(today, -66),
    make: () => Promise.resolve(new TextEncoder().encode(text)),
  };
}

/** Every paper of the demo's inbox, newest first. */
export function demoPapers(today: string): DemoPaper[] {
  return [...brackwaterPapers, ...ninefoldPapers, mailAboutVerbena, signalLamp]
    .map((paper) => paper(today))
    .sort((a, b) => (a.receivedOn < b.receivedOn ? 1 : -1));
}
