/**
 * What a large page's island begins with, written into the page once as JSON: as a property of the island it would be
 * wrapped value by value and its every quotation mark written out, which makes it twice as long.
 */
import { useState, type ComponentType, type ReactNode } from 'react';

/** Where it stands in the page. */
export const PAGE_DATA = 'page-data';

/** JSON that no text in it can end early. */
export const jsonForPage = (value: unknown): string => JSON.stringify(value).replaceAll('<', '\\u003c');

/** An island that begins with what `PageData` wrote into its page; for islands of the browser alone. */
export function fromPage<P extends object>(Island: ComponentType<P>): () => ReactNode {
  return function FromPage() {
    const [props] = useState(() => JSON.parse(document.getElementById(PAGE_DATA)!.textContent) as P);
    return <Island {...props} />;
  };
}
