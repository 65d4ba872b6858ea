import { useRef, useState } from 'react';
import { useNarrow } from '../../app/useNarrow.js';
import type { PanelTab } from './DeskPanel.js';

/** What of the desk is in view: which tab, which side on a telephone, and whether notes have a margin to stand in. */
export function useDeskView(begin: PanelTab) {
  const [tab, setTab] = useState<PanelTab>(begin);
  const [side, setSide] = useState<'draft' | 'panel'>('draft');
  const margin = useRef<HTMLElement>(null);
  /** The note was opened from the draft: “Done” leads back there. */
  const fromDraft = useRef(false);
  return {
    narrow: useNarrow(),
    tab,
    setTab,
    side,
    setSide,
    margin,
    marginShows: () => margin.current !== null && margin.current.offsetParent !== null,
    comeBack: () => {
      fromDraft.current = true;
    },
    goBack: () => {
      if (fromDraft.current) setSide('draft');
      fromDraft.current = false;
    },
    show: (wanted: PanelTab) => {
      setTab(wanted);
      setSide('panel');
    },
  };
}
