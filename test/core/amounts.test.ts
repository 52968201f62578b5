import { expect } from 'chai';
import { toldIn } from '../../src/core/quantities/say';
import fc from 'fast-check';
import { withAmount } from '../../src/core/formula/line-amount';
import {
  readAmount,
  readGrams,
  readGramsOrNull,
  stepOfGrams,
  writeAmount,
} from '../../src/core/quantities/amount';
import { UNITS, type Unit } from '../../src/core/quantities/units';
import { near } from '../support/request';

const read = (text: string, current: (typeof UNITS)[number] = 'g') => {
  const reading = readAmount(text, current);
  return reading.ok ? [reading.amount.value, reading.amount.unit] : reading.code;
};

describe('amounts as makers write them', () => {
  it('reads numbers, fractions, decimal commas and units in their usual spellings', () => {
    expect(read('28g')).to.deep.equal([28, 'g']);
    expect(read(' 1 oz ')).to.deep.equal([1, 'oz']);
    expect(read('5%')).to.deep.equal([5, '%fats']);
    expect(read('5 %', '%cured')).to.deep.equal([5, '%cured']);
    expect(read('3 % of fats')).to.deep.equal([3, '%fats']);
    expect(read('2 tsp')).to.deep.equal([2, 'tsp']);
    expect(read('1.5 tbsp/lb')).to.deep.equal([1.5, 'tbspPerLbFats']);
    expect(read('1 1/2 tbsp AU')).to.deep.equal([1.5, 'tbspAU']);
    expect(read('3/4', 'oz')).to.deep.equal([0.75, 'oz']);
    expect(read('0,5 kg')).to.deep.equal([0.5, 'kg']);
    expect(read('20 g/kg')).to.deep.equal([20, 'gPerKgFats']);
    expect(read('2 L')).to.deep.equal([2, 'L']);
    expect(read('2 lb')).to.deep.equal([2, 'lb']);
  });

  it('refuses what it cannot read, and guesses nothing', () => {
    expect(read('')).to.equal('not-a-number');
    expect(read('a handful')).to.equal('not-a-number');
    expect(read('1 2')).to.equal('not-a-number');
    expect(read('1/0 g')).to.equal('not-a-number');
    expect(read('-1 g')).to.equal('negative');
    expect(read('3 furlongs')).to.equal('unknown-unit');
    expect(read('3 constructor')).to.equal('unknown-unit');
    expect(read('101 % pour')).to.equal('absurd');
    expect(read('5000 kg')).to.equal('absurd');
  });

  it('reads what makers write, in six languages', () => {
    const cases: Record<string, [number, string, string?, string?]> = {
      '½ tsp': [0.5, 'tsp'],
      '1½ tsp': [1.5, 'tsp'],
      '1 ½ tbsp': [1.5, 'tbsp'],
      '⅔ cup': [0.6667, 'cup'],
      '1 lb 8 oz': [24, 'oz'],
      '1lb8oz': [24, 'oz'],
      '2 lbs, 3.5 oz': [35.5, 'oz'],
      '1 kg 250 g': [1250, 'g'],
      '1 kg and 250 g': [1250, 'g'],
      '1 tbsp + 1 tsp': [4, 'tsp'],
      '1 EL und 1 TL': [4, 'tsp'],
      '1 250 g': [1250, 'g'],
      '1,250.5 g': [1250.5, 'g'],
      'about 28 g': [28, 'g'],
      '~ 28 gr': [28, 'g'],
      '28 grammes': [28, 'g'],
      '28 Gramm': [28, 'g'],
      '28 grammi': [28, 'g'],
      '28 gramos': [28, 'g'],
      '28 gram': [28, 'g'],
      '1 Pfund': [500, 'g'],
      '1 pond': [500, 'g'],
      '2 ounces': [2, 'oz'],
      '2 onces': [2, 'oz'],
      '1 teaspoon': [1, 'tsp'],
      '2 tsps': [2, 'tsp'],
      '2 tsp.': [2, 'tsp'],
      'a teaspoon': [1, 'tsp'],
      'half a teaspoon': [0.5, 'tsp'],
      'one teaspoon': [1, 'tsp'],
      'two tablespoons': [2, 'tbsp'],
      '2 level teaspoons': [2, 'tsp', 'spoon'],
      '1 T': [1, 'tbsp'],
      '1 t': [1, 'tsp'],
      '1 Tbs': [1, 'tbsp'],
      '1 heaped tsp': [1, 'tsp', 'heaped'],
      '1 heaping tablespoon': [1, 'tbsp', 'heaped'],
      'a rounded teaspoon': [1, 'tsp', 'heaped'],
      '1 gehäufter TL': [1, 'tsp', 'heaped'],
      '1 geh. EL': [1, 'tbsp', 'heaped'],
      '1 gestrichener Teelöffel': [1, 'tsp', 'spoon'],
      '2 Esslöffel': [2, 'tbsp'],
      'ein halber Teelöffel': [0.5, 'tsp'],
      '1 c. à café': [1, 'tsp'],
      '1 c. à c.': [1, 'tsp'],
      '2 cuillères à soupe': [2, 'tbsp'],
      '2 c. à s. bombées': [2, 'tbsp', 'heaped'],
      '1 cuillère à café rase': [1, 'tsp', 'spoon'],
      'une cuillère à café': [1, 'tsp'],
      '1 cucchiaino': [1, 'tsp'],
      '2 cucchiai colmi': [2, 'tbsp', 'heaped'],
      '1 cucchiaino raso': [1, 'tsp', 'spoon'],
      '1 cucharadita': [1, 'tsp'],
      '2 cucharadas colmadas': [2, 'tbsp', 'heaped'],
      'media cucharadita': [0.5, 'tsp'],
      '1 theelepel': [1, 'tsp'],
      '2 eetlepels': [2, 'tbsp'],
      '1 afgestreken theelepel': [1, 'tsp', 'spoon'],
      '10 drops': [0.5, 'mL', 'eye'],
      '20 Tropfen': [1, 'mL', 'eye'],
      '20 gouttes': [1, 'mL', 'eye'],
      '20 gocce': [1, 'mL', 'eye'],
      '20 gotas': [1, 'mL', 'eye'],
      '20 druppels': [1, 'mL', 'eye'],
      'a pinch': [0.0625, 'tsp', 'eye'],
      '2 Prisen': [0.125, 'tsp', 'eye'],
      'une pincée': [0.0625, 'tsp', 'eye'],
      'un pizzico': [0.0625, 'tsp', 'eye'],
      'una pizca': [0.0625, 'tsp', 'eye'],
      'een snufje': [0.0625, 'tsp', 'eye'],
      '250 ml': [250, 'mL'],
      '1 fl. oz': [1, 'flOz'],
      '1 fluid ounce': [1, 'flOz'],
      '1 tsp ppo': [1, 'tspPerLbFats'],
      '0.7 oz ppo': [0.7, 'ozPerLbFats'],
      '1 tsp per pound of oils': [1, 'tspPerLbFats'],
      '1/2 tsp per pound': [0.5, 'tspPerLbFats'],
      '½ tsp per lb oils': [0.5, 'tspPerLbFats'],
      '1 heaped tsp per lb': [1, 'tspPerLbFats', 'heaped'],
      '1 oz per pound of fats': [1, 'ozPerLbFats'],
      '10 g per pound of oils': [22.0462, 'gPerKgFats'],
      '20 g per kilo of oils': [20, 'gPerKgFats'],
      '20 g pro kg Öl': [20, 'gPerKgFats'],
      '20 g je kg Fett': [20, 'gPerKgFats'],
      '10 g pro Pfund Öl': [20, 'gPerKgFats'],
      '20 g par kg d’huiles': [20, 'gPerKgFats'],
      '20 g per kg di oli': [20, 'gPerKgFats'],
      '20 g por kg de aceites': [20, 'gPerKgFats'],
      '20 g per kg olie': [20, 'gPerKgFats'],
      '1 TL pro kg Fett': [0.4536, 'tspPerLbFats'],
      '3 % of oils': [3, '%fats'],
      '3 % of the oils': [3, '%fats'],
      '3% oil weight': [3, '%fats'],
      '3 percent of fats': [3, '%fats'],
      '3 % der Fette': [3, '%fats'],
      '3 % vom Öl': [3, '%fats'],
      '3 % GFM': [3, '%fats'],
      '3 % des huiles': [3, '%fats'],
      '3 % degli oli': [3, '%fats'],
      '3 % de los aceites': [3, '%fats'],
      '3 % van de oliën': [3, '%fats'],
      '3 % of the whole': [3, '%pour'],
      '3 % of the batch': [3, '%pour'],
      '3 % total': [3, '%pour'],
      '3 % vom Ganzen': [3, '%pour'],
      '3 % du total': [3, '%pour'],
      '3 % del totale': [3, '%pour'],
      '3 % del total': [3, '%pour'],
      '3 % van het geheel': [3, '%pour'],
      '3 % of the cured bar': [3, '%cured'],
      '3 % of the finished bar': [3, '%cured'],
      '3 % der fertigen Seife': [3, '%cured'],
      '3 % of the liquid': [3, '%liquid'],
      '3 % of the water': [3, '%liquid'],
      '3 % vom Wasser': [3, '%liquid'],
    };
    const wrong: string[] = [];
    for (const [text, [value, unit, measuredBy]] of Object.entries(cases)) {
      const found = readAmount(text, 'g');
      const isRight =
        found.ok &&
        Math.abs(found.amount.value - value) < 1e-4 &&
        found.amount.unit === unit &&
        (found.measuredBy ?? undefined) === measuredBy;
      if (!isRight) wrong.push(`${text}: ${JSON.stringify(found)}`);
    }
    expect(wrong).to.deep.equal([]);
  });

  it('asks about what fits two stories, and says what to do with what it cannot read', () => {
    const told = (text: string) => {
      const found = readAmount(text, 'g');
      return found.ok ? 'read' : found.message;
    };
    expect(told('a handful')).to.match(/weigh/i);
    expect(told('eine Handvoll')).to.match(/weigh/i);
    expect(told('as much as looks right')).to.match(/weigh|number/i);
    for (const two of ['2-3 tsp', '2 – 3 %', '2 to 3 tsp', '2 bis 3 TL', '1 g 2 %', '1 tsp 5 g', '1 lb 8'])
      expect(told(two), two).not.to.equal('read');
    for (const open of ['3 % of soap', '3 % de savon', '1 livre', '1 Tasse', '2 tasses', '1 taza', '5 cc'])
      expect(told(open), open).to.match(/not a unit/);
    expect(told('2-3 tsp')).to.match(/one figure/i);
    const isOpen = (text: string, current: Unit = 'g') => {
      const found = readAmount(text, current);
      return found.ok && found.isPercentOpen;
    };
    expect([isOpen('5 %'), isOpen('5 % of fats'), isOpen('5 %', '%pour'), isOpen('5 g')]).to.deep.equal([
      true,
      false,
      false,
      false,
    ]);
  });

  it('reads grams where grams are asked for, in whatever unit they are typed', () => {
    near(readGrams('8 oz'), 226.796185, 1e-6);
    near(readGrams('1 lb 8 oz'), 680.388555, 1e-6);
    expect([readGrams('12,5'), readGrams('1.2 kg'), readGramsOrNull(' ')]).to.deep.equal([12.5, 1200, null]);
    // In a house of ounces a bare number is ounces; what says its unit is what it says.
    near(readGrams('8', 'oz'), 226.796185, 1e-6);
    expect([readGrams('88 g', 'oz'), stepOfGrams('3.10', 'oz')]).to.deep.equal([88, 0.2835]);
    for (const none of ['2 tsp', '5 %', '-1', 'x', ''])
      expect(Number.isNaN(readGrams(none)), none).to.equal(true);
    expect(['85', '85.5', '85,25 g', '3.5 oz'].map((text) => stepOfGrams(text))).to.deep.equal([
      1, 0.1, 0.01, 2.835,
    ]);
  });

  it('measures spoons by spoon and weights by scale, and as the words say', () => {
    const line = {
      id: 'l1',
      material: 'kaolin',
      stage: 'trace',
      amount: { value: 9, unit: 'g' },
      measuredBy: 'scale',
    } as const;
    const spooned = withAmount(line, { value: 2, unit: 'tsp' });
    expect(spooned.measuredBy).to.equal('spoon');
    expect(withAmount(spooned, { value: 3, unit: 'tsp' }, 'heaped').measuredBy).to.equal('heaped');
    expect(withAmount(spooned, { value: 9, unit: 'g' }).measuredBy).to.equal('scale');
    // Guessed stays guessed while its unit stays what it is.
    expect(withAmount({ ...line, measuredBy: 'eye' }, { value: 8, unit: 'g' }).measuredBy).to.equal('eye');
  });

  it('writes every unit so that it reads back the same', () => {
    fc.assert(
      fc.property(fc.constantFrom(...UNITS), fc.integer({ min: 0, max: 999_999 }), (unit, tenThousandths) => {
        const amount = { value: tenThousandths / 10_000, unit };
        const reading = readAmount(writeAmount(amount), 'g');
        expect(reading.ok && reading.amount.unit).to.equal(unit);
        if (reading.ok) near(reading.amount.value, amount.value, 1e-9);
      }),
    );
  });

  it('says the grams of a sentence in ounces where the house weighs so, once, and leaves other figures alone', () => {
    const sentence = 'Lot OL2600 holds 1,200 g, not 1250.5 g. 134 g of NaOH a gram; 12 g/mL; 80 grams.';
    expect(toldIn(sentence, 'g')).to.equal(sentence);
    const told = toldIn(sentence, 'oz');
    expect(told).to.equal(
      'Lot OL2600 holds 42.3\u00a0oz (1,200\u00a0g), not 44.1\u00a0oz (1250.5\u00a0g). 134 g of NaOH a gram; 12 g/mL; 80 grams.',
    );
    expect(toldIn(told, 'oz')).to.equal(told);
  });
});
