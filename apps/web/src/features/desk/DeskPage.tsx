import type { DeskView } from '@salt-circle/contracts';
import { completeness, formScore } from '@salt-circle/core';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import { useParams } from 'react-router';
import { Button, giveFocusBack, Loading, Split } from '../../kit/index.js';
import { Page } from '../../app/frame/Page.js';
import { deskShareChanged, selectDeskShare } from '../../app/layoutSlice.js';
import { Rating } from '../../app/after/Rating.js';
import { PleaseLook } from '../../app/moderation/PleaseLook.js';
import { labelWords } from '../../app/People.js';
import { useKeptReview } from '../../app/offline/keptReviews.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { NoteStrip } from '../../app/reading/NoteStrip.js';
import { plainText } from '../../app/reading/plainText.js';
import { noteDomId } from '../../app/reading/passages.js';
import { placeWords } from '../../app/reading/places/whereabouts.js';
import { TakeAlong } from '../../app/annotated-files/TakeAlong.js';
import { useAnnotation } from '../../app/reading/useAnnotation.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { useMe } from '../../app/session/useMe.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { useFresh } from '../../app/useFresh.js';
import { usePrinting } from '../../app/usePrinting.js';
import { useDeskView } from './useDeskView.js';
import { useTimeSpent } from './useTimeSpent.js';
import { BringBack } from './BringBack.js';
import { CheckPanel, KeepFromAuthor } from './moderation/CheckPanel.js';
import { DeskBar } from './DeskBar.js';
import { DeskDraft } from './DeskDraft.js';
import { DeskNotices, NoteRemoved } from './DeskNotices.js';
import { DeskPanel, OneView } from './DeskPanel.js';
import { openDraftWindow, useLinkedAnnotation } from './deskLink.js';
import { DeskTools } from './DeskTools.js';
import { PeersOf } from '../../app/moderation/PeersUnder.js';
import { EarlierPanel } from './EarlierPanel.js';
import { NoteCard } from './notes/NoteCard.js';
import { OnPaper } from './OnPaper.js';
import type { NoteAids } from './notes/NoteForm.js';
import { useDeskQuery } from '../../app/reviewApi.js';
import { KeptHere } from './KeptHere.js';
import { DeskThread, ThreadsOf } from './DeskThread.js';
import { WithholdingOf } from './moderation/Withholding.js';
import { useAnswers } from '../../app/form/useAnswers.js';
import { saysSomething, useNotes } from './notes/useNotes.js';
import { say } from '../../words/desk.js';

/** Draft and review form side by side; everything is saved as it is typed. */
export function DeskPage() {
  const { reviewId = '' } = useParams();
  return <DeskLoader key={reviewId} reviewId={reviewId} only={undefined} />;
}

/** The draft of a review in a second window, which follows the desk in the first. */
export function DraftWindowPage() {
  const { reviewId = '' } = useParams();
  return <DeskLoader key={reviewId} reviewId={reviewId} only="draft" />;
}

/** The draft in a window of its own. What is done in it is saved as on the desk. */
function DraftWindow({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <main id="main" className="h-dvh">
      <h1 className="sr-only">{title}</h1>
      {children}
    </main>
  );
}

/** Milliseconds between two questions while a copy of the draft is being made, or while changes are not heard of. */
const WHILE_MADE = 5_000;

function DeskLoader({ reviewId, only }: { readonly reviewId: string; readonly only: 'draft' | undefined }) {
  const [making, setMaking] = useState(false);
  const query = useDeskQuery(reviewId, {
    refetchOnMountOrArgChange: true,
    pollingInterval: usePolling(WHILE_MADE) || (making ? WHILE_MADE : 0),
    skipPollingIfUnfocused: true,
  });
  const desk = useFresh(query);
  const printing = usePrinting();
  const waits = desk?.draft.parts.some(({ copy }) => copy?.state === 'waiting') ?? false;
  if (waits !== making) setMaking(waits);
  if (desk === undefined) {
    return (
      <Page title={say('review')}>
        {query.error === undefined ? <Loading what={say('reviewWord')} /> : <ProblemNotice error={query.error} />}
      </Page>
    );
  }
  const submitted = desk.submittedAt !== null && !desk.changing;
  return (
    <>
      <Submitted is={submitted} />
      <WithholdingOf desk={desk}>
        <ThreadsOf desk={desk}>
          <PeersOf desk={desk}>
            <div className="contents print:hidden">
              <Desk key={`${desk.submittedAt ?? ''}${desk.changing ? ' changing' : ''}`} desk={desk} only={only} />
            </div>
            {printing && <OnPaper desk={desk} />}
          </PeersOf>
        </ThreadsOf>
      </WithholdingOf>
    </>
  );
}

/** Says that a review has just been submitted or reopened; the desk begins anew then, and the focus with it. */
function Submitted({ is }: { readonly is: boolean }) {
  const [was, setWas] = useState(is);
  const [said, setSaid] = useState('');
  if (was !== is) {
    setWas(is);
    setSaid(is ? say('submittedLabel') : say('reopened'));
  }
  useEffect(() => {
    if (said !== '') giveFocusBack(null);
  }, [said]);
  return (
    <p role="status" className="sr-only">
      {said}
    </p>
  );
}

interface DeskProps {
  readonly desk: DeskView;
  /** In a second window: the draft with its notes alone. */
  readonly only: 'draft' | undefined;
}

function Desk({ desk, only }: DeskProps) {
  const dispatch = useAppDispatch();
  const { exchange, form, draft, editable } = desk;
  const me = useMe();
  const prefix = `${me.id}:review:${desk.id}:`;
  const notes = useNotes(desk.notes, desk.id, `${prefix}note:`, draft);
  const answers = useAnswers(form, desk.answers, `${prefix}answer:`, {
    url: `/api/reviews/${desk.id}/answers`,
    along: useMemo(() => ({ version: draft.version }), [draft.version]),
  });
  const annotation = useLinkedAnnotation(desk.id, useAnnotation(draft, notes.list));
  const measured = desk.spentSeconds !== null && desk.reviewer.you === true;
  useTimeSpent(desk.id, measured && editable);
  const [bringing, setBringing] = useState(false);
  const view = useDeskView(isChecked(desk) ? 'check' : 'form');
  const { kept, drop } = useKeptReview(desk, me.id);
  const state = completeness(form, answers.answers, notes.list.filter(saysSomething).length);
  const shown = draft.parts.find(({ id }) => id === annotation.partId);

  const aids: NoteAids = {
    shorthand: desk.shorthand,
    items: form.items,
    reviewId: desk.id,
    exchangeId: exchange.id,
    files: desk.files,
    filesTaken: desk.practice === null,
    textOf: ({ place }) => plainText(draft.parts.find(({ id }) => id === place.partId)?.html ?? ''),
  };

  /** Where the draft has no room for a margin, notes are in the list only: a chosen one is brought into view there. */
  const choose = (id: string) => {
    annotation.choose(id);
    if (view.marginShows()) return;
    view.show('notes');
    view.comeBack();
  };
  const card = (id: string, quoted: boolean) => {
    const note = notes.list.find((one) => one.id === id);
    return note === undefined ? null : (
      <NoteCard
        note={note}
        saveKey={`${prefix}note:${id}`}
        match={annotation.match(id)}
        active={id === annotation.activeId}
        editable={editable}
        aids={aids}
        quoted={quoted}
        where={placeWords(note.place, quoted ? draft.parts : [])}
        onActivate={() => annotation.choose(id)}
        domId={quoted ? undefined : noteDomId(id)}
        onClose={() => {
          annotation.release();
          view.goBack();
        }}
        onChange={(part) => notes.change(id, part)}
        onRemove={() => notes.remove(id)}
        onReplace={(theirs) => notes.replace(id, theirs)}
      />
    );
  };
  const tools = only === undefined && (
    <>
      {desk.spentSeconds !== null && desk.spentSeconds >= 30 && (
        <span className="px-2 py-1 text-sm text-ink-soft" title={say('timeAtWorkThisPage')}>
          {say('minutesSoFar', { spentSeconds: Math.round(desk.spentSeconds / 60) })}
        </span>
      )}
      {editable && desk.reviewer.you === true && (
        <KeptHere kept={kept} timeZone={exchange.timeZone} savePrefix={prefix} onDrop={drop} />
      )}
      {!view.narrow && (
        <Button
          look="quiet"
          small
          title={say('putsDraftIntoSecondWindow')}
          onClick={() => {
            openDraftWindow(desk.id);
            dispatch(deskShareChanged(0));
          }}
        >
          {say('secondWindow')}
        </Button>
      )}
    </>
  );
  const reading = (
    <DeskDraft
      desk={desk}
      notes={notes}
      annotation={annotation}
      margin={view.margin}
      card={card}
      onChoose={choose}
      tools={tools}
    />
  );
  if (only === 'draft') return <DraftWindow title={titleOf(desk)}>{reading}</DraftWindow>;
  const panel = {
    form,
    editable,
    answers,
    state,
    score: formScore(form, answers.answers),
    savePrefix: `${prefix}answer:`,
    notes: notes.list,
    onNote: choose,
    files: { reviewId: desk.id, exchangeId: exchange.id, files: desk.files, taken: desk.practice === null },
    card: (id: string) => card(id, true),
    foot: <DeskFoot desk={desk} />,
    check: isChecked(desk) ? <CheckPanel desk={desk} onNote={choose} /> : null,
    earlier: desk.earlier ? <EarlierPanel reviewId={desk.id} /> : null,
    tab: view.tab,
    onTab: view.setTab,
  };
  return (
    <Page
      fill
      crumbs={[
        { words: exchange.courseTitle, to: `/courses/${exchange.courseId}` },
        { words: exchange.title, to: `/exchanges/${desk.practice?.forId ?? exchange.id}` },
        ...(desk.practice === null ? [] : [practiceCrumb(desk.practice)]),
      ]}
      title={titleOf(desk)}
      aside={
        <>
          {desk.practice === null && !view.narrow && (
            <TakeAlong
              small
              base={`/reviews/${desk.id}`}
              draft={draft}
              onBring={editable ? () => setBringing(true) : undefined}
            />
          )}
          <DeskTools exchange={{ ...exchange, id: desk.practice?.forId ?? exchange.id }} />
        </>
      }
    >
      <DeskNotices desk={desk} />
      <div className="min-h-0 flex-1">
        {view.narrow ? (
          <OneView
            {...panel}
            view={view.side === 'draft' ? 'draft' : view.tab}
            onView={(next) => (next === 'draft' ? view.setSide('draft') : view.show(next))}
            draft={reading}
          />
        ) : (
          <TwoSides
            draft={reading}
            panel={<DeskPanel {...panel} />}
            strip={<NoteStrip notes={notes.list} part={shown} layout={annotation.layout} />}
          />
        )}
      </div>
      {bringing && <BringBack desk={desk} onClose={() => setBringing(false)} />}
      <NoteRemoved notes={notes} />
      <DeskBar
        desk={desk}
        state={state}
        answers={answers.answers}
        notes={notes.list}
        savePrefix={prefix}
        onJump={() => view.show('form')}
      />
    </Page>
  );
}

function TwoSides({ draft, panel, strip }: Readonly<Record<'draft' | 'panel' | 'strip', ReactNode>>) {
  const dispatch = useAppDispatch();
  const share = useAppSelector(selectDeskShare);
  return (
    <Split
      label={say('betweenDraftAndForm')}
      share={share}
      onShare={(next) => dispatch(deskShareChanged(next))}
      left={draft}
      right={panel}
      strip={strip}
    />
  );
}

/** Of the own review, once it is submitted, one may want to ask about it. */
function asksToLook({ reviewer, submittedAt, practice, voice }: DeskView): boolean {
  return reviewer.you === true && submittedAt !== null && practice === null && voice === null;
}

/** What staff say under their own names is theirs: nobody is to look through it, but it can be kept back like any other. */
function isChecked({ checkable, voice }: DeskView): boolean {
  return checkable && voice === null;
}

/** Below the form: what is answered to the review as a whole, how it helped, and asking for a look. */
function DeskFoot({ desk }: { readonly desk: DeskView }) {
  if (desk.submittedAt === null || desk.practice !== null) return null;
  return (
    <>
      <DeskThread />
      <Rating reviewId={desk.id} />
      {desk.checkable && desk.voice !== null && <KeepFromAuthor desk={desk} />}
      {asksToLook(desk) && <PleaseLook reviewId={desk.id} timeZone={desk.exchange.timeZone} />}
    </>
  );
}

function practiceCrumb({ forId, key }: NonNullable<DeskView['practice']>) {
  return { words: say('practice'), to: `/exchanges/${forId}/${key ? 'plan' : 'practice'}` };
}

function titleOf({ reviewer, author, position, total, practice, draft, voice }: DeskView): string {
  if (voice !== null && reviewer.you === true) return say('yourOwnReviewDraftBy', { labelWords: labelWords(author) });
  if (practice !== null)
    return practice.key ? say('keyOf', { title: draft.title }) : say('practiceOf', { title: draft.title });
  return reviewer.you === true
    ? say('reviewOfDraftBy', { position, total, labelWords: labelWords(author) })
    : say('on', { labelWords: labelWords(reviewer), labelWords2: labelWords(author) });
}
