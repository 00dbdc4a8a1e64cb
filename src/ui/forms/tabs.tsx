"use client";
/** Parts of a station that are worked at one at a time. Arrow keys go from one to the next. */

import { useEffect, useState, type ReactNode } from "react";
import { Tab as TabButton, TabGroup, TabList, TabPanel, TabPanels } from "@headlessui/react";

export interface Tab {
  id: string;
  name: string;
  /** What is open in it: "3", "▲". */
  mark?: string;
  body: ReactNode;
  /** What is typed in it stays while another is looked at. Not for what asks an instrument. */
  keep?: boolean;
}

export function Tabs({ tabs, label, first }: { tabs: Tab[]; label: string; first?: string }) {
  const [chosen, setChosen] = useState(first ?? tabs[0]!.id);
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  // A link from elsewhere names the tab that it leads to: "/jobs/1004/work#Quote".
  useEffect(() => {
    const follow = () => {
      const wanted = decodeURIComponent(window.location.hash.slice(1)).toLowerCase();
      const there = wanted && tabs.find((t) => t.id === wanted || t.name.toLowerCase() === wanted);
      if (there) setChosen(there.id);
    };
    follow();
    window.addEventListener("hashchange", follow);
    return () => window.removeEventListener("hashchange", follow);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the tabs of a station are the same from one drawing of it to the next
  }, []);
  // A tab may go, with the fuse that was replaced: then the first stands.
  const at = Math.max(
    0,
    tabs.findIndex((t) => t.id === chosen),
  );
  const choose = (i: number) => {
    setOpened((o) => new Set([...o, tabs[at]!.id, tabs[i]!.id]));
    setChosen(tabs[i]!.id);
  };
  return (
    <TabGroup selectedIndex={at} onChange={choose}>
      <TabList aria-label={label} className="mb-4 flex flex-wrap gap-1 border-b border-base-300">
        {tabs.map((t) => (
          <TabButton
            key={t.id}
            className="soft min-h-11 rounded-t px-3 hover:text-base-content data-selected:border data-selected:border-b-0 data-selected:border-base-300 data-selected:bg-base-200 data-selected:font-bold data-selected:text-base-content"
          >
            {t.name} {t.mark && <span className="tabular-nums">{t.mark}</span>}
          </TabButton>
        ))}
      </TabList>
      <TabPanels>
        {tabs.map((t, i) => (
          // What was never opened is not made; what is kept is made once.
          <TabPanel key={t.id} unmount={!t.keep} tabIndex={-1}>
            {(i === at || (t.keep && opened.has(t.id))) && t.body}
          </TabPanel>
        ))}
      </TabPanels>
    </TabGroup>
  );
}
