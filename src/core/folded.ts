/** A text as it is compared: small letters without their marks, "Café " as "cafe". */
export const folded = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{Diacritic}/gu, '')
    .trim()
    .toLowerCase();
