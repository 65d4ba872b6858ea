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
import { say } from '../../words/kit-page.js';

const MARKS: readonly MarkState[] = ['not-begun', 'in-progress', 'done', 'late', 'excused'];
const SAVES: readonly SaveState[] = ['saved', 'saving', 'offline', 'unanswered', 'signed-out', 'refused', 'conflict'];
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
      <Page title={say('kit')}>
        <Empty title={say('thisPageIsPartOf')} />
      </Page>
    );
  }
  return (
    <Page title={say('kit')}>
      <Ruler
        now={Date.UTC(2026, 2, 10)}
        nowWords={say('tue10Mar')}
        segments={[
          {
            key: 'plan',
            words: say('plan'),
            figure: say('publishedWord'),
            to: '/kit',
            from: null,
            until: null,
            active: false,
          },
          {
            key: 'drafts',
            words: say('drafts'),
            figure: say('n24Of24HandedIn'),
            to: '/kit',
            from: Date.UTC(2026, 2, 1),
            until: Date.UTC(2026, 2, 7),
            active: false,
          },
          {
            key: 'reviews',
            words: say('reviews'),
            figure: say('n31Of48Done'),
            to: '/kit',
            from: Date.UTC(2026, 2, 7),
            until: Date.UTC(2026, 2, 7) + 6 * DAY,
            active: true,
          },
          {
            key: 'check',
            words: say('check'),
            figure: say('release16Mar'),
            to: '/kit',
            from: Date.UTC(2026, 2, 13),
            until: Date.UTC(2026, 2, 16),
            active: false,
          },
        ]}
      />
      <div className="grid grid-cols-1 gap-x-10 px-5 md:grid-cols-2">
        <Part title={say('statesOfWork')}>
          {MARKS.map((state) => (
            <StateMark key={state} state={state} share={0.4} wordHidden={false} size={16} />
          ))}
        </Part>
        <Part title={say('buttons')}>
          <Button look="primary">{say('handIn')}</Button>
          <Button>{say('seeItAsReviewer')}</Button>
          <Button look="quiet">{say('dropPreview')}</Button>
          <Button look="destructive">{say('remove')}</Button>
          <Button busy>{say('working')}</Button>
          <Button disabled>{say('notNow')}</Button>
        </Part>
        <Part title={say('fields')}>
          <div className="w-full space-y-3">
            <TextField label={say('title')} hint={say('whatStudentsWillSee')} defaultValue={say('fieldReport')} />
            <TextField label={say('reviewsEachStudentGives')} problem={say('eachStudentCanGive1')} defaultValue="11" />
            <TextArea label={say('whatShouldAuthorChangeFirst')} defaultValue={say('moveTheDoubtsUp')} />
            <Select
              label={say('names')}
              value={names}
              onChange={setNames}
              options={[
                ['hidden', say('hiddenBothWays')],
                ['open', say('open')],
              ]}
            />
            <Checkbox label={say('required')} defaultChecked />
          </div>
        </Part>
        <Part title={say('levelsOfCriterion')}>
          <div className="@container w-full">
            <Levels
              label={say('evidence')}
              value={level}
              onChange={setLevel}
              levels={[
                { id: 'a', title: say('claimsOnly'), description: '', points: 1 },
                { id: 'b', title: say('mostClaimsBacked'), description: say('oneOrTwoAreLeft'), points: 5 },
                { id: 'c', title: say('allBacked'), description: '', points: 6 },
              ]}
            />
          </div>
        </Part>
        <Part title={say('messages')}>
          <div className="w-full space-y-2">
            <Notice title={say('reviewingHasBegun')}>{say('allocationStaysAsItIs')}</Notice>
            <Notice tone="soon" title={say('dueSoon')}>
              {say('in3Hours')}
            </Notice>
            <Notice tone="waiting" title={say('waitingOnReviewer')} />
            <Notice tone="problem" title={say('datesAreOutOfOrder')}>
              {say('moveOneOfThem')}
            </Notice>
            <Notice tone="done" title={say('published')} />
          </div>
        </Part>
        <Part title={say('savedState')}>
          {SAVES.map((state) => (
            <SaveMark key={state} state={state} savedAt="10:42:07" />
          ))}
        </Part>
        <Part title={say('overPage')}>
          <Button onClick={() => setOpen(true)}>{say('openDialog')}</Button>
          <Menu
            trigger={<Button>{say('openMenu')}</Button>}
            groups={[
              [{ words: say('oneDayOn'), onPick: () => undefined }],
              [{ words: say('back'), onPick: () => undefined }],
            ]}
          />
          <Tooltip words={say('itSaysWhatItDoes')}>
            <Button>{say('hasTooltip')}</Button>
          </Tooltip>
          <Key>{say('ctrlK')}</Key>
          <Ring size={32} />
          <Loading what={say('nothing')} />
        </Part>
        <Part title={say('tabs')}>
          <Tabs
            label={say('example')}
            value={tab}
            onChange={setTab}
            tabs={[
              { key: 'one', words: say('byReviewer'), content: <p className="py-2">{say('first')}</p> },
              { key: 'two', words: say('byCriterion'), content: <p className="py-2">{say('second')}</p> },
            ]}
          />
        </Part>
        <Part title={say('readingText')}>
          <Prose
            reading
            html="<h2>Why this site</h2><p>The western basin lost its <strong>creek network</strong> in 1987.</p><ul><li><p>Survey the bank</p></li></ul><table><tbody><tr><th><p>What</p></th><th><p>Cost</p></th></tr><tr><td><p>Earthworks</p></td><td><p>42</p></td></tr></tbody></table>"
          />
        </Part>
        <Part title={say('colours')}>
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
        title={say('handInThisDraft')}
        description={say('reviewersSeeAuthorAsHeron')}
      >
        <Button look="primary" onClick={() => setOpen(false)}>
          {say('handInLabel')}
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
