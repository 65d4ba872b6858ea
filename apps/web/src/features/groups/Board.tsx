import {
  DndContext,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import type { GroupMember, GroupSetView, GroupView, Problem } from '@salt-circle/contracts';
import { Plus, Trash2 } from 'lucide-react';
import { useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import { problemOf } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Dialog, Menu } from '../../kit/index.js';
import {
  useAddGroupMutation,
  useMoveMemberMutation,
  useRemoveGroupMutation,
  useRenameGroupMutation,
} from './groupsApi.js';
import { say } from '../../words/groups.js';

const NONE = 'none';

interface Move {
  readonly memberId: string;
  readonly groupId: string | null;
}

/** Groups side by side; people are dragged from one to another, or moved by the menu beside their name. */
export function Board({ set, readOnly }: { readonly set: GroupSetView; readonly readOnly: boolean }) {
  const course = useCourse();
  const [move, moving] = useMoveMemberMutation();
  const [asked, setAsked] = useState<{ readonly move: Move; readonly problem: Problem } | null>(null);
  const [add, adding] = useAddGroupMutation();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const place = { courseId: course.id, setId: set.id };
  const board = useRef<HTMLDivElement>(null);
  /** Moved by the menu beside the name, which goes with the place: the focus follows. */
  const following = useRef<string | null>(null);
  useLayoutEffect(() => {
    const id = following.current;
    const there = set.groups.find(({ members }) => members.some((one) => one.id === id))?.id ?? null;
    if (id === null || document.activeElement !== document.body) return;
    following.current = null;
    const member = board.current?.querySelector<HTMLElement>(
      `[data-member="${CSS.escape(id)}"][data-in="${there ?? NONE}"]`,
    );
    member?.querySelector<HTMLElement>('button')?.focus();
  }, [set]);
  const go = async (wanted: Move, confirmed: boolean) => {
    const result = await move({ ...place, ...wanted, confirmed });
    const problem = result.error === undefined ? null : problemOf(result.error);
    setAsked(problem?.code === 'needs-confirming' ? { move: wanted, problem } : null);
  };
  const drop = ({ active, over }: DragEndEvent) => {
    if (over === null) return;
    const groupId = over.id === NONE ? null : String(over.id);
    const memberId = String(active.id);
    const now = set.groups.find(({ members }) => members.some(({ id }) => id === memberId))?.id ?? null;
    if (now !== groupId) void go({ memberId, groupId }, false);
  };
  const targets = [...set.groups.map(({ id, title }) => ({ id, title })), { id: null, title: say('noGroup') }];
  const member = (one: GroupMember, groupId: string | null) => (
    <Member
      key={one.id}
      member={one}
      readOnly={readOnly}
      targets={targets.filter(({ id }) => id !== groupId)}
      groupId={groupId}
      onMove={(to) => {
        following.current = one.id;
        void go({ memberId: one.id, groupId: to }, false);
      }}
    />
  );
  const problem = moving.error === undefined || asked !== null ? undefined : moving.error;
  return (
    <DndContext sensors={sensors} onDragEnd={drop}>
      {problem !== undefined && <ProblemNotice error={problem} />}
      {adding.error !== undefined && <ProblemNotice error={adding.error} />}
      <div ref={board} className="grid grid-cols-[repeat(auto-fill,minmax(13.5rem,1fr))] items-start gap-3">
        {(set.ungrouped.length > 0 || set.groups.length === 0) && (
          <Column id={NONE} heading={<h4 className="font-semibold">{say('noGroup')}</h4>} count={set.ungrouped.length}>
            {set.ungrouped.map((one) => member(one, null))}
          </Column>
        )}
        {set.groups.map((group) => (
          <Column
            key={group.id}
            id={group.id}
            heading={<GroupHead group={group} setId={set.id} readOnly={readOnly} />}
            count={group.members.length}
          >
            {group.members.map((one) => member(one, group.id))}
          </Column>
        ))}
        {!readOnly && (
          <button
            type="button"
            disabled={adding.isLoading}
            onClick={() => void add({ ...place, title: freeTitle(set.groups) })}
            className="flex items-center gap-1.5 border border-dashed border-edge p-3 text-left text-ink-soft hover:bg-crust"
          >
            <Plus size={16} aria-hidden="true" /> {say('addGroup')}
          </button>
        )}
      </div>
      <Dialog
        open={asked !== null}
        onClose={() => setAsked(null)}
        title={say('moveAllSame')}
        description={asked?.problem.sentence ?? ''}
      >
        <div className="space-y-3">
          <ul className="list-disc space-y-1 pl-5">
            {asked?.problem.fields.map(({ sentence }) => (
              <li key={sentence}>{sentence}</li>
            ))}
          </ul>
          <Button look="primary" busy={moving.isLoading} onClick={() => asked !== null && void go(asked.move, true)}>
            {say('move')}
          </Button>
        </div>
      </Dialog>
    </DndContext>
  );
}

/** "Group 7", the first number that no group has yet. */
function freeTitle(groups: readonly GroupView[]): string {
  const taken = new Set(groups.map(({ title }) => title));
  let number = groups.length + 1;
  while (taken.has(say('group', { number }))) number += 1;
  return say('group', { number });
}

interface ColumnProps {
  readonly id: string;
  readonly heading: ReactNode;
  readonly count: number;
  readonly children: ReactNode;
}

function Column({ id, heading, count, children }: ColumnProps) {
  const { setNodeRef, isOver } = useDroppable({ id });
  return (
    <section
      ref={setNodeRef}
      className={`border bg-paper p-2 ${isOver ? 'border-iodine outline outline-iodine' : 'border-line'}`}
    >
      <div className="mb-1 flex items-center justify-between gap-2">
        {heading}
        <span className="text-sm text-ink-soft">{count}</span>
      </div>
      <ul className="min-h-8">{children}</ul>
    </section>
  );
}

interface GroupHeadProps {
  readonly group: GroupView;
  readonly setId: string;
  readonly readOnly: boolean;
}

function GroupHead({ group, setId, readOnly }: GroupHeadProps) {
  const course = useCourse();
  const [title, setTitle] = useState(group.title);
  const [rename, { error }] = useRenameGroupMutation();
  const [remove, removing] = useRemoveGroupMutation();
  const place = { courseId: course.id, setId, groupId: group.id };
  const save = () => {
    if (title.trim() === '') setTitle(group.title);
    else if (title.trim() !== group.title) void rename({ ...place, title });
  };
  return (
    <div className="min-w-0 flex-1">
      <h4 className="flex items-center font-semibold">
        {readOnly ? (
          group.title
        ) : (
          <input
            aria-label={say('nameOf', { title: group.title })}
            aria-invalid={error !== undefined || undefined}
            title={error === undefined ? undefined : problemOf(error).sentence}
            value={title}
            maxLength={200}
            onChange={({ target }) => setTitle(target.value)}
            onBlur={save}
            onKeyDown={(event) => {
              if (event.key === 'Enter') event.currentTarget.blur();
            }}
            className={`min-w-0 flex-1 rounded border bg-transparent px-1 ${error === undefined ? 'border-transparent hover:border-line' : 'border-madder'}`}
          />
        )}
        {!readOnly && group.members.length === 0 && (
          <button
            type="button"
            aria-label={say('remove', { title: group.title })}
            onClick={() => void remove(place)}
            className="rounded p-1 text-ink-soft hover:bg-crust"
          >
            <Trash2 size={15} aria-hidden="true" />
          </button>
        )}
      </h4>
      {removing.error !== undefined && <ProblemNotice error={removing.error} />}
    </div>
  );
}

interface MemberProps {
  readonly member: GroupMember;
  readonly readOnly: boolean;
  readonly targets: ReadonlyArray<{ readonly id: string | null; readonly title: string }>;
  readonly groupId: string | null;
  readonly onMove: (groupId: string | null) => void;
}

function Member({ member, readOnly, targets, groupId, onMove }: MemberProps) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: member.id, disabled: readOnly });
  const about = [member.section, member.trait].filter((part) => part !== null).join(', ');
  return (
    <li
      ref={setNodeRef}
      data-member={member.id}
      data-in={groupId ?? NONE}
      {...(readOnly ? {} : listeners)}
      style={transform === null ? undefined : { transform: `translate(${transform.x}px, ${transform.y}px)` }}
      className={`flex items-center justify-between gap-2 border-t border-line py-1 ${readOnly ? '' : 'cursor-grab touch-none'} ${isDragging ? 'relative z-20 border border-iodine bg-paper px-2' : ''}`}
    >
      <span className="min-w-0">
        <span className="block truncate">{member.name}</span>
        {about !== '' && <span className="block truncate text-sm leading-tight text-ink-soft">{about}</span>}
      </span>
      {!readOnly && (
        <Menu
          trigger={
            <button
              type="button"
              aria-label={say('moveToAnotherGroup', { name: member.name })}
              // Pressing the button is not the beginning of a drag.
              onPointerDown={(event) => event.stopPropagation()}
              className="rounded px-1 text-sm text-ink-soft hover:bg-crust"
            >
              {say('move')}
            </button>
          }
          groups={[targets.map(({ id, title }) => ({ words: title, onPick: () => onMove(id) }))]}
        />
      )}
    </li>
  );
}
