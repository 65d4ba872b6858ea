import { useMemo, useState, type KeyboardEvent } from 'react';
import { Button, Empty } from '../../../kit/index.js';
import type { Model } from '../model.js';
import { RING_MOST, ringOf, type Ring, type RingNode } from './ring.js';
import { named } from '../sentences.js';
import { say } from '../../../words/allocation.js';

/** People on a circle, an arc for each review; whoever is pointed at or focused shows theirs. */
export function RingView({ model, onMatrix }: { readonly model: Model; readonly onMatrix: () => void }) {
  const ring = useMemo(() => ringOf(model), [model]);
  const [held, setHeld] = useState<string | null>(null);
  const [pointed, setPointed] = useState<string | null>(null);
  if (ring.nodes.length > RING_MOST) {
    return (
      <Empty title={say('peopleAreTooManyFor', { nodes: ring.nodes.length })}>
        <p>{say('pastItsArcsCanNo', { ringmost: RING_MOST })}</p>
        <Button onClick={onMatrix}>{say('showMatrix')}</Button>
      </Empty>
    );
  }
  const shown = pointed ?? held ?? ring.nodes[0]?.key ?? null;
  const node = ring.nodes.find(({ key }) => key === shown) ?? null;
  return (
    <div className="flex flex-col items-center">
      <Circle
        ring={ring}
        shown={shown}
        onPoint={setPointed}
        onHold={(key) => {
          setHeld(key);
          setPointed(null);
        }}
      />
      {node !== null && <Legend node={node} model={model} />}
    </div>
  );
}

interface CircleProps {
  readonly ring: Ring;
  readonly shown: string | null;
  readonly onPoint: (key: string | null) => void;
  readonly onHold: (key: string) => void;
}

/** Room around the circle for names, in radii: beside it, and above and below. */
const BESIDE = 0.95;
const ABOVE = { apart: 0.17, crowded: 0.5 } as const;

function Circle({ ring, shown, onPoint, onHold }: CircleProps) {
  const { nodes, arcs } = ring;
  const crowded = nodes.length > 44;
  const step = (event: KeyboardEvent<SVGGElement>, index: number) => {
    const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    const next = nodes[(index + by + nodes.length) % nodes.length] as RingNode;
    onHold(next.key);
    const siblings = event.currentTarget.parentElement?.children;
    (siblings?.[nodes.indexOf(next)] as SVGGElement | undefined)?.focus();
  };
  const touched = arcs.filter(({ from, to }) => from === shown || to === shown);
  const neighbours = new Set(touched.flatMap(({ from, to }) => [from, to]));
  const width = 1 + BESIDE;
  const height = 1 + (crowded ? ABOVE.crowded : ABOVE.apart);
  return (
    <svg
      viewBox={`${-width} ${-height} ${2 * width} ${2 * height}`}
      className="h-[calc(100dvh-17rem)] min-h-96 w-full max-w-4xl overflow-visible select-none"
      role="group"
      aria-label={say('peopleOnCircleArcFor')}
    >
      <g fill="none" strokeWidth="0.004" className="stroke-edge" opacity={crowded ? 0.3 : 0.45}>
        {arcs.map(({ key, path }) => (
          <path key={key} d={path} />
        ))}
      </g>
      <g fill="none">
        {touched.map(({ key, path, from }) => (
          <path
            key={key}
            d={path}
            strokeWidth="0.012"
            className={from === shown ? 'stroke-iodine' : 'stroke-copper'}
            strokeDasharray={from === shown ? undefined : '0.03 0.02'}
          />
        ))}
      </g>
      <g>
        {nodes.map((node, index) => (
          <Point
            key={node.key}
            node={node}
            chosen={node.key === shown}
            near={neighbours.has(node.key)}
            labelled={!crowded || node.key === shown || neighbours.has(node.key)}
            crowded={crowded}
            onPoint={onPoint}
            onHold={onHold}
            onKeyDown={(event) => step(event, index)}
          />
        ))}
      </g>
    </svg>
  );
}

interface PointProps {
  readonly node: RingNode;
  readonly chosen: boolean;
  readonly near: boolean;
  readonly labelled: boolean;
  readonly crowded: boolean;
  readonly onPoint: (key: string | null) => void;
  readonly onHold: (key: string) => void;
  readonly onKeyDown: (event: KeyboardEvent<SVGGElement>) => void;
}

function Point({ node, chosen, near, labelled, crowded, onPoint, onHold, onKeyDown }: PointProps) {
  const { words, angle, x, y, reviewerId } = node;
  const right = x > 0.02;
  const upright = Math.abs(x) <= 0.02;
  const degrees = (angle * 180) / Math.PI - 90;
  // Crowded names stand on the rays of the circle, so that they do not cover each other.
  const place = crowded
    ? { transform: `translate(${x * 1.05} ${y * 1.05}) rotate(${right ? degrees : degrees + 180})` }
    : { x: x * 1.06, y: y * (upright ? 1.09 : 1.06) };
  return (
    <g
      role="button"
      aria-label={words}
      aria-pressed={chosen}
      tabIndex={chosen ? 0 : -1}
      className="cursor-pointer outline-none [&:focus-visible>.point]:stroke-[0.02]"
      onPointerEnter={() => onPoint(node.key)}
      onPointerLeave={() => onPoint(null)}
      onClick={() => onHold(node.key)}
      onFocus={() => onHold(node.key)}
      onKeyDown={onKeyDown}
    >
      <circle cx={x} cy={y} r="0.05" fill="transparent" />
      {reviewerId === null ? (
        <rect
          x={x - 0.018}
          y={y - 0.018}
          width="0.036"
          height="0.036"
          strokeWidth="0.007"
          className={`point stroke-ink ${chosen ? 'fill-iodine' : 'fill-salt'}`}
        />
      ) : (
        <circle
          cx={x}
          cy={y}
          r={crowded ? 0.012 : 0.02}
          strokeWidth="0.007"
          className={`point stroke-ink ${chosen ? 'fill-iodine' : near ? 'fill-crust' : 'fill-salt'}`}
        />
      )}
      {labelled && (
        <text
          {...place}
          textAnchor={crowded ? (right ? 'start' : 'end') : upright ? 'middle' : right ? 'start' : 'end'}
          dominantBaseline="middle"
          fontSize={crowded ? 0.062 : 0.057}
          className={chosen ? 'fill-iodine font-semibold' : near || !crowded ? 'fill-ink' : 'fill-ink-soft'}
        >
          {words}
        </text>
      )}
    </g>
  );
}

function Legend({ node, model }: { readonly node: RingNode; readonly model: Model }) {
  const gives = model.draftsOf.get(node.reviewerId ?? '') ?? [];
  const gets = node.draftId === null ? [] : (model.reviewersOf.get(node.draftId) ?? []);
  return (
    <div role="status" className="mt-1 w-full max-w-3xl space-y-0.5 text-center">
      <p>
        <Line />{' '}
        {say('reviewsOf2', {
          strong: <strong className="text-iodine">{node.words}</strong>,
          named: gives.length === 0 ? say('nobody') : named(gives.map((id) => model.authorName(id))),
        })}
      </p>
      <p>
        <Line dashed /> <span className="text-copper">{say('reviewedBy')}</span>{' '}
        {node.draftId === null
          ? say('nobodyNoDraft')
          : gets.length === 0
            ? say('nobody')
            : named(gets.map((id) => model.reviewerName(id)))}
      </p>
    </div>
  );
}

function Line({ dashed = false }: { readonly dashed?: boolean }) {
  return (
    <svg width="30" height="8" aria-hidden="true" className="inline">
      <path
        d="M0 4 H30"
        strokeWidth="2.5"
        strokeDasharray={dashed ? '6 4' : undefined}
        className={dashed ? 'stroke-copper' : 'stroke-iodine'}
      />
    </svg>
  );
}
