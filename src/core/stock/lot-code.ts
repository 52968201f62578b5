/** Numbering lots as the maker does: letters of the material and a number that runs on. */
import { folded } from '../folded';

const CODE = /^([A-Z]{1,4})([-. ]?)(\d{2,6})$/;

/**
 * The next codes for some materials, in their order, after the codes there are. Where those follow no pattern of letters
 * and a number, the day and a place in the delivery.
 *
 * @example nextCodes(['OL2600', 'CO2602'], ['Shea butter', 'Olive oil'], '2026-11-30') // ['SH2603', 'OL2604']
 */
export function nextCodes(known: readonly string[], names: readonly string[], today: string): string[] {
  const read = known.map((code) => CODE.exec(code)).filter((found) => found !== null);
  const taken = new Set(known);
  const letters = (name: string, count: number) => {
    const own = folded(name)
      .replace(/[^a-z]/g, '')
      .toUpperCase();
    return (own || 'LOT').slice(0, count).padEnd(count, 'X');
  };
  if (read.length * 2 <= known.length || read.length === 0) {
    const day = today.slice(2).replaceAll('-', '');
    let place = 0;
    return names.map(() => {
      let code = `${day}-${++place}`;
      while (taken.has(code)) code = `${day}-${++place}`;
      return code;
    });
  }
  const [, like, apart, digits] = read.at(-1)!;
  let number = Math.max(...read.map((found) => Number(found[3])));
  return names.map(
    (name) => `${letters(name, like!.length)}${apart}${String(++number).padStart(digits!.length, '0')}`,
  );
}
