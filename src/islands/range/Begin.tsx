/** What to do first in an empty house. */
const STEPS = [
  ['/#new-bar', 'Start a first bar', 'Give it a name above; it comes with a plain formula to change.'],
  [
    '/house/import',
    'Bring your spreadsheet',
    'A spreadsheet or CSV, as it is: columns and units are guessed, you say the rest.',
  ],
  [
    '/wrap/maker',
    'Say who answers for the bars',
    'Name and address for the label, market by market where one asks for it.',
  ],
  [
    '/house',
    'Say where you sell and in what currency',
    'Or take in an archive, or a bar that somebody handed over.',
  ],
  [
    '/cupboard',
    'Look into the cupboard',
    'Some hundreds of materials are there; papers of your suppliers go into the tray.',
  ],
] as const;

export function Begin() {
  return (
    <section aria-label="Begin" className="sheet mt-4 max-w-3xl">
      <h2 className="text-lg">Nothing stands here yet</h2>
      <ol className="grid gap-2 pt-1">
        {STEPS.map(([href, title, words], at) => (
          <li key={href} className="grid grid-cols-[1.6rem_1fr]">
            <span className="font-display text-lg tabular-nums">{at + 1}</span>
            <span>
              <a className="font-medium text-ultra underline" href={href}>
                {title}
              </a>
              <br />
              <span className="text-soft">{words}</span>
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
