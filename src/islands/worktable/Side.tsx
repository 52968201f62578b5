import { memo, useState } from 'react';
import { Tab, TabList, TabPanel, Tabs } from 'react-aria-components';
import type { Market } from '../../core/formula/types';
import type { WorkingVersion } from '../../core/records/product';
import { BarPanel } from './BarPanel';
import { EverywherePanel } from './EverywherePanel';
import { AdvicePanel, ListPanel, NotesPanel } from './Outcome';
import { OutlookCount, OutlookPanel } from './OutlookPanel';
import { RemediesPanel } from './Remedies';
import { SizePanel } from './SizePanel';
import { VersionsPanel } from './VersionsPanel';
import { WhatIfPanel } from './WhatIf';

interface SideProps {
  first: Market;
  onKept: (version: WorkingVersion) => void;
}

/** What the formula leads to; the rest a tab away. Each panel follows the table by itself. */
export const Side = memo(function Side({ first, onKept }: SideProps) {
  const [market, setMarket] = useState(first);
  return (
    <Tabs className="side-tabs">
      <TabList aria-label="What the formula leads to" className="tab-list">
        <Tab id="leads">Leads to</Tab>
        <Tab id="outlook">
          Outlook
          <OutlookCount />
        </Tab>
        <Tab id="whatif">Slide and see</Tab>
        <Tab id="size">Size</Tab>
        <Tab id="versions">Versions</Tab>
        <Tab id="bar">Bar</Tab>
      </TabList>
      <TabPanel id="leads">
        <RemediesPanel />
        <EverywherePanel />
        <ListPanel market={market} onMarket={setMarket} />
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
});
