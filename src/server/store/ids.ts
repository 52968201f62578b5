/** Ids made from names. */

const LONGEST = 60;

/** Letters, digits and dashes of a name; `otherwise` where nothing of it is left. */
export function plainId(name: string, otherwise: string): string {
  const plain = name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, LONGEST);
  return plain || otherwise;
}

/**
 * The id of a name that is not taken yet, with a number behind it where it has to be. `taken` gives the ids
 * that begin so; asked within the transaction that then inserts, nobody can take it in between.
 */
export async function freeId(
  name: string,
  otherwise: string,
  taken: (base: string) => Promise<ReadonlySet<string>>,
): Promise<string> {
  const base = plainId(name, otherwise);
  const ids = await taken(base);
  for (let count = 1; ; count++) {
    const id = count === 1 ? base : `${base}-${count}`;
    if (!ids.has(id)) return id;
  }
}
