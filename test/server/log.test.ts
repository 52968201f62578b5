/** The log holds what went wrong and where, and nothing of what makers write. */
import { execFileSync } from 'node:child_process';
import { expect } from 'chai';

const SCRIPT = `
import { note, noteFault } from './src/server/log.ts';
const error = Object.assign(new Error("insert into products values ('Secret Rose') - UNIQUE"), { code: 'SQLITE_CONSTRAINT' });
noteFault('endpoint', error);
noteFault('endpoint', 'Secret words');
note('scale', 'No scale is read.');
`;

describe('the log', () => {
  it('is lines of JSON with kind, code and place, without any message', () => {
    const args = ['--import=tsx', '--input-type=module', '-e', `${SCRIPT}`];
    // The log goes to the standard error, here turned into what is read.
    const text = execFileSync('sh', ['-c', `"$0" "$@" 2>&1 >/dev/null`, process.execPath, ...args], {
      encoding: 'utf8',
    });
    const lines = text.split('\n').filter((line) => line.startsWith('{'));
    const read = lines.map((line) => JSON.parse(line) as Record<string, unknown>);
    expect(read).to.have.length(3);
    expect(read[0]).to.include({ kind: 'endpoint', name: 'Error', code: 'SQLITE_CONSTRAINT' });
    expect((read[0]!.at as string[]).length).to.be.above(0);
    expect(read[2]).to.include({ kind: 'scale', msg: 'No scale is read.' });
    expect(text).to.not.contain('Secret');
  });
});
