/** A batch's card as it leaves the house: one static page without scripts, words, a row for a shop, data for search engines. */
import Papa from 'papaparse';
import { daysCured, type Card, type CardInput, type CardPart } from '../../core/labels/card';
import { escapeHtml } from './words';

const STYLE = `body{margin:0 auto;max-width:34rem;padding:1.5rem;font:1rem/1.5 Georgia,serif;color:#18222d;background:#fff}
h1{margin:0;font-size:2rem;line-height:1.15}.what{margin:.2rem 0 1rem}p{margin:.6rem 0}
@media print{body{max-width:none;padding:0;font-size:11pt}}`;

/** Which property of a product a part is, in the vocabulary that search engines read. */
const PROPERTIES: Partial<Record<CardPart, string>> = { description: 'description', batch: 'productID' };

/** One page that needs nothing beside itself: no script, no picture, nothing fetched, nobody counted. */
export function cardHtml({ language, name, identity, rows }: Card): string {
  const lines = rows.map(({ part, text }) => {
    const property = PROPERTIES[part];
    return `<p data-part="${part}"${property ? ` itemprop="${property}"` : ''}>${escapeHtml(text)}</p>`;
  });
  return `<!doctype html>
<html lang="${language}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width,initial-scale=1">
<title>${escapeHtml(name)}</title>
<style>${STYLE}</style>
</head>
<body>
<main itemscope itemtype="https://schema.org/Product">
<h1 itemprop="name">${escapeHtml(name)}</h1>
<p class="what">${escapeHtml(identity)}</p>
${lines.join('\n')}
</main>
</body>
</html>
`;
}

/** A card for the stall, to print and fold: name, what it is, net, price; large. */
export function priceHtml({ language, name, identity, rows }: Card): string {
  const of = (part: CardPart) => escapeHtml(rows.find((row) => row.part === part)?.text ?? '');
  return `<!doctype html>
<html lang="${language}">
<head>
<meta charset="utf-8">
<title>${escapeHtml(name)}</title>
<style>@page{size:105mm 74mm;margin:6mm}body{margin:0;font-family:Georgia,serif;color:#18222d}
h1{margin:0;font-size:26pt;line-height:1.1}p{margin:2mm 0 0;font-size:11pt}.price{margin-top:5mm;font-size:24pt}
.list{font-size:7pt;line-height:1.25}</style>
</head>
<body>
<h1>${escapeHtml(name)}</h1>
<p>${escapeHtml(identity)}</p>
<p class="price">${of('price')}</p>
<p>${of('net')}</p>
<p class="list">${of('ingredients')}</p>
</body>
</html>
`;
}

/** Name, what it is, then every part on a line of its own. */
export const cardText = ({ name, identity, rows }: Card): string =>
  [name, identity, '', ...rows.map(({ text }) => text), ''].join('\n');

/** A row for a shop, with its heads. What was not chosen is empty. */
export function cardCsv({ name, identity, rows }: Card): string {
  const of = (part: CardPart) => rows.find((row) => row.part === part)?.text ?? '';
  const row = {
    name,
    'what it is': identity,
    description: of('description'),
    net: of('net'),
    price: of('price'),
    ingredients: of('ingredients'),
    use: of('use'),
    cautions: of('cautions'),
    batch: of('batch'),
    durability: of('durability'),
    cured: of('cured'),
  };
  return Papa.unparse([row], { escapeFormulae: true });
}

/** The same as structured data of schema.org; net mass and price as figures. */
export function cardData(card: Card, input: CardInput, netMassG: number | null): string {
  const { rows, name, identity } = card;
  const has = (part: CardPart) => rows.some((row) => row.part === part);
  const of = (part: CardPart) => rows.find((row) => row.part === part)?.text;
  const { price } = input;
  const cured = daysCured(input);
  const more = [
    ...(['ingredients', 'use', 'cautions', 'durability'] as const).flatMap((part) =>
      has(part) ? [{ '@type': 'PropertyValue', name: part, value: of(part) }] : [],
    ),
    ...(has('cured') ? [{ '@type': 'PropertyValue', name: 'daysCured', value: cured }] : []),
  ];
  const data = {
    '@context': 'https://schema.org',
    '@type': 'Product',
    name,
    category: identity,
    description: of('description'),
    productID: of('batch'),
    weight:
      has('net') && netMassG !== null
        ? { '@type': 'QuantitativeValue', value: netMassG, unitCode: 'GRM' }
        : undefined,
    offers:
      has('price') && price !== null
        ? { '@type': 'Offer', price: price.toFixed(2), priceCurrency: input.currency }
        : undefined,
    additionalProperty: more.length > 0 ? more : undefined,
  };
  return `${JSON.stringify(data, null, 2)}\n`;
}
