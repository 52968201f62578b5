/** A label's words for a web shop: as plain text and as HTML. */
import type { LabelContent } from '../../core/labels/content';

/** A text as it may stand in a page. */
export const escapeHtml = (text: string): string =>
  text.replace(/[&<>"]/g, (letter) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[letter]!);

/** Name, what it is, net content, then every element on a line of its own. */
export function labelText({ front, info }: LabelContent): string {
  return [front.name, front.identity, front.net, '', ...info.map(({ text }) => text), ''].join('\n');
}

/** The same as a fragment of HTML, without styles, to be put into any page. */
export function labelHtml({ front, info }: LabelContent): string {
  const lines = info.map(({ id, text }) => `  <p data-element="${escapeHtml(id)}">${escapeHtml(text)}</p>`);
  return [
    '<section>',
    `  <h2>${escapeHtml(front.name)}</h2>`,
    `  <p>${escapeHtml(front.identity)}</p>`,
    `  <p>${escapeHtml(front.net)}</p>`,
    ...lines,
    '</section>',
    '',
  ].join('\n');
}
