/** `npm run rulebook -- file.html`: the rulebook in force and the library as one document to be read over, with sources. */
import { writeFileSync } from 'node:fs';
import { LIBRARY } from '../src/library';
import { printed } from '../src/library/printed';
import { rulebook } from '../src/rulebook';
import { today, usualZone } from '../src/server/config';

const file = process.argv[2] ?? 'rulebook.html';
writeFileSync(file, printed(rulebook(), LIBRARY, today(usualZone())));
console.log(`Written to ${file}.`);
