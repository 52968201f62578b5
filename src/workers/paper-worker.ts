/** Reads a paper off the main thread, in the browser. */
import type { Lesson } from '../core/paperwork/lessons';
import type { PaperLine } from '../core/paperwork/page';
import { readPaper, type PaperReading } from '../core/paperwork/read';
import { knownConstituents } from '../library/constituents';

export interface PaperTask {
  lines: PaperLine[];
  lessons: readonly Lesson[];
}

addEventListener('message', (event: MessageEvent<PaperTask>) => {
  postMessage(readPaper(event.data, knownConstituents, event.data.lessons) satisfies PaperReading);
});
