/** A label's words for a web shop: as plain text and as HTML. */
import type { LabelContent } from '../../core/labels/content';

const escape = (text: string) =>
  text.replace(/[&<>"]/g, (letter) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[letter]!);

/** Name, what it is, net content, then every element on a line of its own. */
export function labelText({ front, info }: LabelContent): string {
  return [front.name, front.identity, front.net, '', ...info.map(({ text }) => text), ''].join('\n');
}

/** The same as a fragment of HTML, without styles, to be put into any page. */
export function labelHtml({ front, info }: LabelContent): string {
  const lines = info.map(({ id, text }) => `  <p data-element="${escape(id)}">${escape(text)}</p>`);
  return [
    '<section>',
    `  <h2>${escape(front.name)}</h2>`,
    `  <p>${escape(front.identity)}</p>`,
    `  <p>${escape(front.net)}</p>`,
    ...lines,
    '</section>',
    '',
  ].join('\n');
}
