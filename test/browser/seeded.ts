/** Before all browser tests. */
import { seedOnce } from '../support/seeded';

export default function setUp(): () => void {
  return seedOnce();
}
