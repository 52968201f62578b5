/** What a page begins with, as JSON in the page. */
import { expect } from 'chai';
import { jsonForPage } from '../../src/ui/page-data';

describe('what a page begins with', () => {
  it('reads back whole, and no text in it ends its script or begins another', () => {
    const first = {
      name: '</script><script>alert(1)</script>',
      note: '<!-- <Script ü \u2028 "',
      left: [0.1, null],
    };
    const text = jsonForPage({ first });
    expect(text).to.not.include('<');
    expect(JSON.parse(text)).to.deep.equal({ first });
  });
});
