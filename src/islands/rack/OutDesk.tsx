import type { Market } from '../../core/formula/types';
import type { StockRow } from '../../core/records/rack';
import { guarded } from '../../ui/Guarded';
import { StallEvening } from './StallEvening';
import { TillList } from './TillList';

interface Props {
  stock: readonly StockRow[];
  markets: Market[];
  today: string;
}

function OutDeskIsland({ stock, markets, today }: Props) {
  return (
    <div className="grid gap-5 lg:grid-cols-2">
      <StallEvening stock={stock} markets={markets} today={today} />
      <TillList markets={markets} names={stock.flatMap(({ code, productName }) => [code, productName])} />
    </div>
  );
}

/** What went out: counted at the stall, or from a list. */
export const OutDesk = guarded('What went out', OutDeskIsland);
