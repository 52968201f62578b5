/**
 * An id as it is said where nothing on file names it.
 *
 * @example spoken('methyl-eugenol') // 'methyl eugenol'
 * @example spoken('essentialOil') // 'essential oil'
 */
export const spoken = (id: string): string =>
  id
    .replaceAll('-', ' ')
    .replaceAll('+', ' with ')
    .replace(/(?<=[a-z])[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
