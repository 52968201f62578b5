import { useState } from 'react';
import { Tab, TabList, TabPanel, Tabs } from 'react-aria-components';
import type { School } from '../../core/formula/answer';
import type { Remedy } from '../../core/loads/remedies';
import type { WorkingVersion } from '../../core/records/product';
import { BarPanel } from './BarPanel';
import { useTable } from './context';
import { AdvicePanel, ListPanel, NotesPanel } from './Outcome';
import { OutlookPanel } from './OutlookPanel';
import { RemediesPanel } from './Remedies';
import { SizePanel } from './SizePanel';
import { VersionsPanel } from './VersionsPanel';
import { WhatIfPanel } from './WhatIf';

interface SideProps {
  remedies: readonly Remedy[];
  onKept: (version: WorkingVersion) => void;
}

/** What the formula leads to; the rest a tab away. */
export function Side({ remedies, onKept }: SideProps) {
  const { data } = useTable();
  const [market, setMarket] = useState(data.product.markets[0]!);
  const [school, setSchool] = useState<School>('added');
  return (
    <Tabs className="side-tabs">
      <TabList aria-label="What the formula leads to" className="tab-list">
        <Tab id="leads">Leads to</Tab>
        <Tab id="outlook">Outlook</Tab>
        <Tab id="whatif">What if</Tab>
        <Tab id="size">Size</Tab>
        <Tab id="versions">Versions</Tab>
        <Tab id="bar">Bar</Tab>
      </TabList>
      <TabPanel id="leads">
        <RemediesPanel remedies={remedies} />
        <ListPanel market={market} school={school} onMarket={setMarket} onSchool={setSchool} />
        <NotesPanel />
        <AdvicePanel />
      </TabPanel>
      <TabPanel id="outlook">
        <OutlookPanel />
      </TabPanel>
      <TabPanel id="whatif">
        <WhatIfPanel />
      </TabPanel>
      <TabPanel id="size">
        <SizePanel />
      </TabPanel>
      <TabPanel id="versions">
        <VersionsPanel onKept={onKept} />
      </TabPanel>
      <TabPanel id="bar">
        <BarPanel />
      </TabPanel>
    </Tabs>
  );
}
