import { useState, type ReactNode } from 'react';
import {
  Button,
  Checkbox,
  Dialog,
  Empty,
  Key,
  Levels,
  Loading,
  Menu,
  Notice,
  Prose,
  Ring,
  Ruler,
  SaveMark,
  Select,
  StateMark,
  Tabs,
  TextArea,
  TextField,
  Tooltip,
  type MarkState,
  type SaveState,
} from '../../kit/index.js';
import { useSessionQuery } from '../../app/api.js';
import { Page } from '../../app/frame/Page.js';

const MARKS: readonly MarkState[] = ['not-begun', 'in-progress', 'done', 'late', 'excused'];
const SAVES: readonly SaveState[] = ['saved', 'saving', 'offline', 'signed-out', 'refused', 'conflict'];
const TOKENS = [
  'salt',
  'paper',
  'crust',
  'line',
  'edge',
  'ink',
  'ink-soft',
  'iodine',
  'kelp',
  'copper',
  'dusk',
  'slate',
  'madder',
  'saffron',
  'saffron-ground',
];
const DAY = 24 * 3_600_000;

/** Every component of the kit on one page. Not for production. */
export function KitPage() {
  const { data } = useSessionQuery();
  const [open, setOpen] = useState(false);
  const [tab, setTab] = useState('one');
  const [level, setLevel] = useState<string | null>('b');
  const [names, setNames] = useState('hidden');
  if (data !== undefined && !data.demo && import.meta.env.PROD) {
    return (
      <Page title="Kit">
        <Empty title="This page is part of the demo only." />
      </Page>
    );
  }
  return (
    <Page title="Kit">
      <Ruler
        now={Date.UTC(2026, 2, 10)}
        nowWords="Tue 10 Mar"
        segments={[
          { key: 'plan', words: 'Plan', figure: 'published', to: '/kit', from: null, until: null, active: false },
          {
            key: 'drafts',
            words: 'Drafts',
            figure: '24 of 24 handed in',
            to: '/kit',
            from: Date.UTC(2026, 2, 1),
            until: Date.UTC(2026, 2, 7),
            active: false,
          },
          {
            key: 'reviews',
            words: 'Reviews',
            figure: '31 of 48 done',
            to: '/kit',
            from: Date.UTC(2026, 2, 7),
            until: Date.UTC(2026, 2, 7) + 6 * DAY,
            active: true,
          },
          {
            key: 'check',
            words: 'Check',
            figure: 'release 16 Mar',
            to: '/kit',
            from: Date.UTC(2026, 2, 13),
            until: Date.UTC(2026, 2, 16),
            active: false,
          },
        ]}
      />
      <div className="grid grid-cols-1 gap-x-10 px-5 md:grid-cols-2">
        <Part title="States of work">
          {MARKS.map((state) => (
            <StateMark key={state} state={state} share={0.4} wordHidden={false} size={16} />
          ))}
        </Part>
        <Part title="Buttons">
          <Button look="primary">Hand in…</Button>
          <Button>See it as a reviewer</Button>
          <Button look="quiet">Drop the preview</Button>
          <Button look="destructive">Remove</Button>
          <Button busy>Working</Button>
          <Button disabled>Not now</Button>
        </Part>
        <Part title="Fields">
          <div className="w-full space-y-3">
            <TextField label="Title" hint="What students will see." defaultValue="Field report" />
            <TextField
              label="Reviews each student gives"
              problem="Each student can give 1 to 10 reviews."
              defaultValue="11"
            />
            <TextArea label="What should the author change first?" defaultValue="Move the doubts up." />
            <Select
              label="Names"
              value={names}
              onChange={setNames}
              options={[
                ['hidden', 'Hidden both ways'],
                ['open', 'Open'],
              ]}
            />
            <Checkbox label="Required" defaultChecked />
          </div>
        </Part>
        <Part title="Levels of a criterion">
          <div className="@container w-full">
            <Levels
              label="Evidence"
              value={level}
              onChange={setLevel}
              levels={[
                { id: 'a', title: 'Claims only', description: '', points: 1 },
                { id: 'b', title: 'Most claims backed', description: 'One or two are left open.', points: 5 },
                { id: 'c', title: 'All backed', description: '', points: 6 },
              ]}
            />
          </div>
        </Part>
        <Part title="Messages">
          <div className="w-full space-y-2">
            <Notice title="Reviewing has begun.">The allocation stays as it is.</Notice>
            <Notice tone="soon" title="Due soon.">
              In 3 hours.
            </Notice>
            <Notice tone="waiting" title="Waiting on a reviewer." />
            <Notice tone="problem" title="The dates are out of order.">
              Move one of them.
            </Notice>
            <Notice tone="done" title="Published." />
          </div>
        </Part>
        <Part title="Saved state">
          {SAVES.map((state) => (
            <SaveMark key={state} state={state} savedAt="10:42:07" />
          ))}
        </Part>
        <Part title="Over the page">
          <Button onClick={() => setOpen(true)}>Open a dialog</Button>
          <Menu
            trigger={<Button>Open a menu</Button>}
            groups={[[{ words: 'One day on', onPick: () => undefined }], [{ words: 'Back', onPick: () => undefined }]]}
          />
          <Tooltip words="It says what it does">
            <Button>Has a tooltip</Button>
          </Tooltip>
          <Key>Ctrl K</Key>
          <Ring size={32} />
          <Loading what="nothing" />
        </Part>
        <Part title="Tabs">
          <Tabs
            label="Example"
            value={tab}
            onChange={setTab}
            tabs={[
              { key: 'one', words: 'By reviewer', content: <p className="py-2">First</p> },
              { key: 'two', words: 'By criterion', content: <p className="py-2">Second</p> },
            ]}
          />
        </Part>
        <Part title="Reading text">
          <Prose
            reading
            html="<h2>Why this site</h2><p>The western basin lost its <strong>creek network</strong> in 1987.</p><ul><li><p>Survey the bank</p></li></ul><table><tbody><tr><th><p>What</p></th><th><p>Cost</p></th></tr><tr><td><p>Earthworks</p></td><td><p>42</p></td></tr></tbody></table>"
          />
        </Part>
        <Part title="Colours">
          {TOKENS.map((token) => (
            <span key={token} className="flex w-36 items-center gap-2 text-sm">
              <span className="size-6 border border-edge" style={{ background: `var(--${token})` }} /> {token}
            </span>
          ))}
        </Part>
      </div>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        title="Hand in this draft?"
        description="Reviewers see the author as Heron."
      >
        <Button look="primary" onClick={() => setOpen(false)}>
          Hand in
        </Button>
      </Dialog>
    </Page>
  );
}

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section className="border-b border-line py-5">
      <h2 className="mb-3 font-semibold">{title}</h2>
      <div className="flex flex-wrap items-center gap-3">{children}</div>
    </section>
  );
}
