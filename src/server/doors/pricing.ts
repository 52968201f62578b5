/** The doors of prices. */
import { Id, ListOf, Name, NumberBetween, Optional, OrNull, Rule, YesNo } from './fields';
import { FirstRevision } from './revision';

const DEAREST = 1e5;
const MOST_CHANNELS = 30;
const LONGEST_HOURS = 200;
const MOST_PRICES = 5000;

class ChannelDoor {
  @Id() id!: string;
  @Name('the place') name!: string;
  @NumberBetween(0, 100) feePct!: number;
  @NumberBetween(0, DEAREST) feeEach!: number;
  @NumberBetween(0, 100) taxPct!: number;
  @YesNo() isTaxIn!: boolean;
}

class CostsDoor {
  @NumberBetween(0, DEAREST) packEach!: number;
  @NumberBetween(0, DEAREST) energyBatch!: number;
  @Optional() @OrNull() @NumberBetween(0, DEAREST) energyHot?: number | null;
  @NumberBetween(0, LONGEST_HOURS) otherHours!: number;
  @NumberBetween(0, 99) unsoldPct!: number;
  @ListOf(() => ChannelDoor, MOST_CHANNELS) channels!: ChannelDoor[];
}

export class PricingOfBarDoor extends CostsDoor {
  @FirstRevision() revision!: number;
  @OrNull() @NumberBetween(0, DEAREST) price!: number | null;
}

const arePrices = (value: unknown) =>
  typeof value === 'object' &&
  value !== null &&
  Object.keys(value).length <= MOST_PRICES &&
  Object.values(value).every((one) => typeof one === 'number' && one >= 0 && one <= DEAREST);

/** What is kept of the whole house. */
export class PricingDoor extends CostsDoor {
  @Rule('not-prices', 'Give prices by the ids of bars.', arePrices) prices!: object;
}
