/** The steps of a day, in order, each with what has to be done before it. */
import { TAKES, type Day, type DayBook } from './day-book';
import { CAUTION, VESSEL } from './day-words';
import { weightSaid } from './spoons';
import { cautionsAt } from './moments';
import type { Premix } from './premix';
import { isScent } from '../formula/scents';
import { sugarShare, type Role } from './roles';
import { ALKALI_LINE, BUCKET_LINE, LYE_STOCK_LINE, type RunStep } from './run-sheet-types';

/** Usual craft temperatures, °C. Waxes set early and want it warmer; lactate wants the lye below 55. */
const WARMTH = {
  melting: { from: 60, to: 75 },
  joining: { from: 28, to: 45 },
  joiningWaxes: { from: 48, to: 54 },
  cooking: { from: 75, to: 95 },
  cooked: { from: 60, to: 74 },
} as const;

/** The alkali is told to the tenth of a gram, however much of it. */
const TO_THE_TENTH_G = 0.1;

export function gear(book: DayBook): string[] {
  const { loads } = book.day;
  const lively = loads.some(({ material }) => material.behaviour?.speeds);
  const on = book.add({
    id: 'gear',
    place: 'gear',
    title: 'Dress and clear the room',
    how: 'Goggles, gloves, long sleeves, closed shoes. Children and pets out, window open, water within reach.',
    why: 'Lye burns. Nobody is hurt who is dressed for it.',
    cautions: [CAUTION.alkali, CAUTION.aluminium],
    minutes: TAKES.gear,
  });
  const out = book.add({
    id: 'set-out',
    place: 'gear',
    title: 'Set everything out',
    how: 'Line the moulds. Stand bottles, powders, spoons and vessels in the order you will want them.',
    why: lively
      ? 'Something here sets the batter fast: there will be no time to look for things.'
      : 'Once the lye is in, the batter waits for nobody.',
    after: [on],
    minutes: TAKES.gear,
  });
  return [on, out];
}

function weighLye(book: DayBook, stock: Day['stock'], massG: number, after: string[]): string {
  const { alkali, tolerance, weights } = book.day;
  const line = stock ? LYE_STOCK_LINE : ALKALI_LINE;
  const name = stock ? `Lye stock, ${stock.concentrationPct} %` : alkali.name;
  const vessel = stock ? VESSEL.lye : VESSEL.alkali;
  return book.add({
    id: `weigh-${line}`,
    place: 'lye',
    title: name,
    how: `Put a ${stock ? 'second ' : ''}${vessel} on the scale and press zero. Add ${name.toLowerCase()} until it shows ${weightSaid(massG, weights, TO_THE_TENTH_G)}. Exact: a gram counts here.`,
    why: 'Too little leaves the bar greasy, too much makes it burn.',
    cautions: [CAUTION.alkali, CAUTION.aluminium],
    weigh: [
      {
        line,
        material: stock ? LYE_STOCK_LINE : 'sodium-hydroxide',
        name,
        massG,
        ...tolerance(line, massG),
        vessel,
        portion: null,
      },
    ],
    after,
    minutes: TAKES.weigh,
  });
}

/** The alkali dry, as a stock, or as much of it as stock as there is water for and the rest dry. */
function stockOrAlkali(book: DayBook, after: string[]): string[] {
  const { alkali, stock } = book.day;
  if (!stock) return [weighLye(book, null, alkali.massG, after)];
  const dry = stock.dryG ? [weighLye(book, null, stock.dryG, after)] : [];
  return [...dry, weighLye(book, stock, stock.massG, after)];
}

/** How alkali and liquid come together. */
function lyeHow({ day: { stock } }: DayBook): string {
  const dry = 'Sprinkle the alkali into the jug of liquid a little at a time, stirring until it is clear.';
  if (!stock) return dry;
  const poured = 'our the lye stock into the jug of liquid in a thin stream, stirring.';
  return stock.dryG ? `${dry} Then p${poured}` : `P${poured}`;
}

/** Liquid, what dissolves in it, the alkali, and the cooling. Answers the steps that end it. */
export function lye(book: DayBook, dressed: string[]): string[] {
  const liquids = book.weighAll('liquid', 'lye', 'liquid', dressed);
  const dissolved = [
    ...book.weighAll('dissolve', 'lye', 'dissolved', [...dressed, ...liquids]),
    ...book.weighAll('fibre', 'lye', 'fibre', [...dressed, ...liquids]),
  ];
  const threads = book.common('fibre').map(({ material }) => material.name.toLowerCase());
  const others = book.weighAll('alkali', 'lye', 'alkali', dressed);
  const weighed = stockOrAlkali(book, dressed);
  const isStock = book.day.stock !== null;
  const mixed = book.add({
    id: 'lye',
    place: 'lye',
    title: isStock ? 'Lye stock into the liquid' : 'Alkali into the liquid',
    how: `${lyeHow(book)}${threads.length > 0 ? ` Stir on while it is hot, until no thread of ${threads.join(' and ')} is left.` : ''}`,
    why: 'The other way round it boils up and spits.',
    cautions: [CAUTION.never, CAUTION.fumes, CAUTION.alkali],
    after: [...dressed, ...liquids, ...dissolved, ...others, ...weighed],
    minutes: TAKES.dissolve,
  });

  const cool = book.add({
    id: 'cool-lye',
    place: 'lye',
    title: 'Let the lye cool',
    how: 'Stand it where nobody can knock it over, and wait.',
    why: 'Joined too hot, the batter runs away from you.',
    cautions: [CAUTION.alkali],
    temperatureC: joining(book),
    after: [mixed],
    minutes: TAKES.cool,
  });
  return [cool, ...book.weighAll('lactate', 'lye', 'lactate', [cool])];
}

function joining({ day }: DayBook) {
  return day.loads.some(({ material }) => material.kind === 'wax') ? WARMTH.joiningWaxes : WARMTH.joining;
}

/** One premix: the carrier first, then the powder on top of it. */
function premix(
  book: DayBook,
  { powder, carriers }: Premix,
  after: string[],
  portion: string | null,
): string {
  const { name } = powder.material;
  const { weights } = book.day;
  const [first] = carriers;
  const carrier = first!.load.material.name;
  const vessel = isScent(first!.load.material) ? VESSEL.scent : VESSEL.small;
  const parts = [...carriers, { load: powder, massG: powder.massG }].filter(({ massG }) => massG > 0);
  const wet = carriers
    .map(({ load, massG }) => `${weightSaid(massG, weights)} of ${load.material.name}`)
    .join(' and ');
  return book.add({
    id: `premix-${powder.line.id}`,
    place: 'premix',
    title: `Rub ${name} smooth`,
    how: `Put a ${vessel} on the scale and press zero. Pour in ${wet}, press zero, add ${weightSaid(powder.massG, weights)} of ${name}. Rub until no lump is left and set it aside.`,
    cautions: cautionsAt(powder.material.cautions, 'pot'),
    why: `Dry, it makes specks. The ${carrier} it is rubbed with is taken off its own weight further on.`,
    weigh: parts.map(({ load, massG }) => book.weighing(load, massG, vessel, portion)),
    after,
    minutes: TAKES.dissolve,
  });
}

function premixesOf(book: DayBook, portion: string | null): Premix[] {
  return book.day.premixes.premixes.filter(({ powder }) => powder.portion === portion);
}

function stirIn(book: DayBook, { powder }: Premix, place: RunStep['place'], after: string[]): string {
  const { name } = powder.material;
  return book.add({
    id: `stir-${powder.line.id}`,
    place,
    title: `${name}, stirred in`,
    how: `Scrape the bowl of ${name} into the ${place === 'fats' ? 'fats' : 'batter'} and stir until the colour is even.`,
    why: 'Rinse the bowl with a little of the pot: what stays in it is missing in the bar.',
    cautions: place === 'fats' ? [] : [CAUTION.batter],
    after,
    minutes: TAKES.weigh,
  });
}

export interface Fats {
  /** What has to be done before the lye may go in. */
  ready: string[];
  /** Premixes of the common batter that wait for the batter. */
  waiting: { premix: Premix; step: string }[];
}

/** Fats that were melted together beforehand, from their bucket into the pot. */
function fromBucket(book: DayBook, after: string[]): string[] {
  const { bucket, weights, tolerance } = book.day;
  if (!bucket) return [];
  const { material, name, massG } = bucket;
  const vessel = VESSEL.fats;
  return [
    book.add({
      id: `weigh-${BUCKET_LINE}`,
      place: 'fats',
      title: `${name}, from the bucket`,
      how: `Warm the bucket until it is clear and stir it from the bottom up. Put the ${vessel} on the scale and press zero. Pour in ${name} until it shows ${weightSaid(massG, weights)}.`,
      why: 'Hard fats set first and sink: what is not stirred is another mix at the top than at the bottom.',
      cautions: [CAUTION.hot],
      weigh: [
        { line: BUCKET_LINE, material, name, massG, ...tolerance(BUCKET_LINE, massG), vessel, portion: null },
      ],
      after,
      minutes: TAKES.melt,
    }),
  ];
}

/** Hard fats melted, oils added, all of it clear, and what is blended into it. */
export function fats(book: DayBook, dressed: string[]): Fats {
  const poured = fromBucket(book, dressed);
  const hard = book.weighAll('fat', 'fats', 'hardFat', [...dressed, ...poured]);
  const melted =
    hard.length === 0
      ? []
      : [
          book.add({
            id: 'melt',
            place: 'fats',
            title: 'Melt the hard fats',
            how: 'Warm the pot gently, stirring, until the last lump is gone.',
            why: 'A lump left now is a white spot in the bar.',
            cautions: [CAUTION.hot],
            temperatureC: WARMTH.melting,
            after: hard,
            minutes: TAKES.melt,
          }),
        ];
  const rubbed = premixesOf(book, null).map((one) => ({
    premix: one,
    step: premix(book, one, [...dressed, ...melted], null),
  }));
  const oils = book.weighAll('fat', 'fats', 'softFat', [...dressed, ...poured, ...melted]);
  const clear = book.add({
    id: 'clear',
    place: 'fats',
    title: 'Look: the fats are clear',
    how: 'Hold a spoonful to the light. Cloudy? Warm it again until you can see through it.',
    why: 'Fat that is not clear sets in spots before the lye reaches it.',
    temperatureC: joining(book),
    after: [...dressed, ...poured, ...melted, ...rubbed.map(({ step }) => step), ...oils],
    minutes: TAKES.weigh,
  });
  const into = book.weighAll('into', 'fats', 'intoFats', [clear]);
  const stirred = rubbed
    .filter(({ premix: { powder } }) => powder.role === 'intoFats')
    .map(({ premix: one, step }) => stirIn(book, one, 'fats', [clear, step]));
  return {
    ready: [clear, ...into, ...stirred],
    waiting: rubbed.filter(({ premix: { powder } }) => powder.role !== 'intoFats'),
  };
}

/** Lye into fats, to emulsion, with what belongs in the whole batter; and the cook. Answers what has to be done. */
export function join(book: DayBook, lyeReady: string[], { ready, waiting }: Fats): string[] {
  const joined = book.add({
    id: 'join',
    place: 'join',
    title: 'Lye into the fats',
    how: 'Feel both vessels: about the same warmth. Pour the lye into the fats in a thin stream, stirring.',
    why: 'Slowly, it cannot splash; into the fats, it meets enough of them.',
    cautions: [CAUTION.alkali, CAUTION.hot],
    temperatureC: joining(book),
    after: [...lyeReady, ...ready],
    minutes: TAKES.join,
  });
  const emulsion = book.add({
    id: 'emulsion',
    place: 'join',
    title: 'Stir to emulsion',
    how: 'Blend in short bursts until no streak of oil is left and it looks like thin custard.',
    why: 'Before that, lye and fat part again; much later there is no time for the rest.',
    cautions: [CAUTION.batter],
    after: [joined],
    minutes: TAKES.join,
  });
  const stirred = waiting.map(({ premix: one, step }) => stirIn(book, one, 'join', [emulsion, step]));
  const unclaimed = book
    .common('held')
    .flatMap((load) => book.weigh('held', 'join', { load, massG: book.left(load) }, [emulsion]));
  const traced = [...stirred, ...unclaimed, ...book.weighAll('trace', 'join', 'trace', [emulsion])];
  const cooked = book.day.isHot ? cook(book, [emulsion, ...traced]) : [emulsion];
  const later = book.weighAll('cooked', 'join', 'afterCook', cooked);
  const scents = book.weighAll('scent', 'join', 'scent', cooked);
  return [...cooked, ...traced, ...later, ...scents];
}

function cook(book: DayBook, after: string[]): string[] {
  const cooking = book.add({
    id: 'cook',
    place: 'join',
    title: 'Cook',
    how: 'Lid on, low heat. Stir when it climbs. It is done when it looks like soft wax all through.',
    why: 'The cook uses up the lye.',
    cautions: [CAUTION.hot, CAUTION.batter],
    temperatureC: WARMTH.cooking,
    after,
    minutes: TAKES.cook,
  });
  const cooled = book.add({
    id: 'cook-cool',
    place: 'join',
    title: 'Let it cool below 75 °C',
    how: 'Take it off the heat and stir now and then.',
    why: 'Hotter, scent and honey are driven off.',
    cautions: [CAUTION.hot],
    temperatureC: WARMTH.cooked,
    after: [cooking],
    minutes: TAKES.melt,
  });
  return [cooled];
}

/** Everything of one portion, salt last; common salt goes in by shares. */
function onePortion(book: DayBook, { id, share }: Day['portions'][number], split: string): string[] {
  const rubbed = premixesOf(book, id).map((one) =>
    stirIn(book, one, 'portion', [split, premix(book, one, [split], id)]),
  );
  const roles: Role[] = [
    'intoFats',
    'held',
    'trace',
    'liquid',
    'dissolved',
    'fibre',
    'lactate',
    'alkali',
    'afterCook',
    'scent',
  ];
  const added = roles.flatMap((role) =>
    book
      .of(role, id)
      .flatMap((load) => book.weigh('part', 'portion', { load, massG: book.left(load) }, [split])),
  );
  const before = [split, ...rubbed, ...added];
  const salts = [
    ...book.of('salt', id).map((load) => ({ load, massG: load.massG })),
    ...book.common('salt').map((load) => ({ load, massG: load.massG * share })),
  ];
  return [...before, ...salts.flatMap((part) => book.weigh('salt', 'portion', part, before, id))];
}

/** Portions, where there are some; salt last of all that goes in. */
export function portions(book: DayBook, batter: string[]): string[] {
  const { portions: parts } = book.day;
  if (parts.length === 0) return [...batter, ...book.weighAll('salt', 'join', 'salt', batter)];
  const shares = parts.map(({ id, share }) => `${id} ${Math.round(share * 100)} %`).join(', ');
  const split = book.add({
    id: 'split',
    place: 'portion',
    title: 'Split the batter',
    how: `Pour it into one vessel for each part: ${shares}. Weigh them if you can, and write down what it really was.`,
    why: 'What each part holds is held against the limits by itself.',
    cautions: [CAUTION.batter],
    after: batter,
    minutes: TAKES.join,
  });
  return parts.flatMap((part) => onePortion(book, part, split));
}

/** Poured, topped, and put to rest. */
export function mouldAndRest(book: DayBook, batter: string[]): void {
  const { loads } = book.day;
  const sweet = loads.some(
    ({ material }) => material.kind === 'milk' || material.kind === 'sugar' || sugarShare(material) > 0,
  );
  const pour = book.add({
    id: 'pour',
    place: 'mould',
    title: 'Pour',
    how: 'Pour into the moulds, scrape the pot, tap the moulds on the table to let the air out.',
    why: 'Air left in makes holes; batter left in the pot is missing in the bars.',
    cautions: [CAUTION.batter],
    after: batter,
    minutes: TAKES.pour,
  });
  const topped = loads
    .filter(({ role }) => role === 'top')
    .flatMap((load) => book.weigh('top', 'mould', { load, massG: load.massG }, [pour]));
  book.add({
    id: 'rest',
    place: 'rest',
    title: sweet ? 'Keep it cool' : 'Let it rest',
    how: sweet
      ? 'Leave it uncovered in a cool place, or chill it. Look after an hour: a crack or a hump means it is too hot.'
      : 'Cover it, keep it warm for an even colour or leave it as it is, and write down which. Against ash cover its face, or mist it with alcohol, away from any flame.',
    why: sweet
      ? 'Milk and sugars heat the block: it may crack or climb out.'
      : 'What was done has to be found again for the next one.',
    after: [pour, ...topped],
  });
}
