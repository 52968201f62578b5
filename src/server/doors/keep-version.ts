/** The door of keeping a version under a name. */
import { Name } from './fields';
import { Revision } from './revision';

export class KeepVersionDoor {
  @Revision() revision!: number;
  @Name('the version') name!: string;
}

export interface KeepVersion {
  revision: number;
  name: string;
}
