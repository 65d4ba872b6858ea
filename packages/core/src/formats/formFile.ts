import { problem } from '../problem.js';
import { EMPTY_FORM, ITEM_KINDS, type CommentRule, type FormItem, type ReviewForm } from '../form/form.js';
import { StructureReader, type FileProblem, type Path } from './structure.js';

/** What the field `format` of a form file says; see `docs/formats.md`. */
export const FORM_FORMAT = 'salt-circle/review-form';
export const FORM_VERSION = 1;

/** A form with its title, as it is kept in a library. */
export interface TitledForm {
  readonly title: string;
  readonly form: ReviewForm;
}

export interface FormReading {
  /** Null when the file is not a form at all. */
  readonly found: TitledForm | null;
  readonly problems: readonly FileProblem[];
  /** What the file had that a form here cannot keep, as names of fields. */
  readonly ignored: readonly string[];
}

const COMMENTS: readonly CommentRule[] = ['none', 'optional', 'required'];
const MAX_ITEMS = 60;
const MAX_PARTS = 30;

/** Ids are of no meaning outside, so files have none; whoever reads one gives out new ids. */
function withoutIds(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withoutIds);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).flatMap(([name, part]) => (name === 'id' ? [] : [[name, withoutIds(part)]])),
  );
}

/** The form as the value of a JSON file of this project's own format. */
export function writeFormFile({ title, form }: TitledForm): Readonly<Record<string, unknown>> {
  return { format: FORM_FORMAT, version: FORM_VERSION, title, form: withoutIds(form) };
}

/**
 * Reads the parsed value of a form file. What the fields say in sum (points out of bounds, no levels) is for
 * `checkForm`; here only the shape is looked at.
 *
 * @param makeId gives a new id at every call
 */
export function readFormFile(value: unknown, makeId: () => string): FormReading {
  const reader = new StructureReader();
  const file = reader.object(value, []);
  if (reader.problems.length > 0) return { found: null, problems: reader.problems, ignored: [] };
  if (file['format'] !== FORM_FORMAT) {
    return { found: null, problems: [problem('wrong-format', ['format'], { wanted: FORM_FORMAT })], ignored: [] };
  }
  if (file['version'] !== FORM_VERSION) {
    const facts = { version: String(file['version']), known: FORM_VERSION };
    return { found: null, problems: [problem('wrong-version', ['version'], facts)], ignored: [] };
  }
  const from = reader.object(file['form'], ['form']);
  const at = ['form'] as const;
  const items = reader
    .list(from, 'items', at, MAX_ITEMS)
    .flatMap((one, index) => readItem(reader, one, ['form', 'items', index], makeId));
  const form: ReviewForm = {
    items,
    weighting: reader.oneOf(from, 'weighting', at, ['points', 'weights'], EMPTY_FORM.weighting),
    overall: reader.oneOf(from, 'overall', at, COMMENTS, EMPTY_FORM.overall),
    overallWords: reader.number(from, 'overallWords', at, 0),
    minimumNotes: reader.number(from, 'minimumNotes', at, 0),
    targetNotes: reader.number(from, 'targetNotes', at, 0),
  };
  const title = reader.text(file, 'title', []);
  const ignored = [
    ...unknownFields(file, ['format', 'version', 'title', 'form', '$schema']),
    ...unknownFields(from, Object.keys(form)),
  ];
  return { found: { title, form }, problems: reader.problems, ignored };
}

function unknownFields(from: Readonly<Record<string, unknown>>, known: readonly string[]): string[] {
  return Object.keys(from).filter((name) => !known.includes(name));
}

function readItem(reader: StructureReader, value: unknown, at: Path, makeId: () => string): FormItem[] {
  const from = reader.object(value, at);
  const kind = from['kind'];
  if (!ITEM_KINDS.includes(kind as FormItem['kind'])) {
    reader.problems.push(
      problem('kind-unknown', [...at, 'kind'], { value: String(kind), known: ITEM_KINDS.join(', ') }),
    );
    return [];
  }
  const base = {
    id: makeId(),
    title: reader.text(from, 'title', at),
    guidance: reader.text(from, 'guidance', at, ''),
    required: reader.flag(from, 'required', at, true),
    weight: reader.number(from, 'weight', at, 1),
  };
  const comment = reader.oneOf(from, 'comment', at, COMMENTS, 'optional');
  const parts = <T>(name: string, read: (part: Readonly<Record<string, unknown>>, path: Path) => T): T[] =>
    reader.list(from, name, at, MAX_PARTS).map((part, index) => {
      const path = [...at, name, index];
      return read(reader.object(part, path), path);
    });
  switch (kind as FormItem['kind']) {
    case 'criterion': {
      const levels = parts('levels', (part, path) => ({
        id: makeId(),
        title: reader.text(part, 'title', path),
        description: reader.text(part, 'description', path, ''),
        points: reader.numberOrNull(part, 'points', path),
      }));
      return [{ kind: 'criterion', ...base, levels, comment }];
    }
    case 'range': {
      const bands = parts('bands', (part, path) => ({
        id: makeId(),
        title: reader.text(part, 'title', path),
        description: reader.text(part, 'description', path, ''),
        from: reader.number(part, 'from', path),
        to: reader.number(part, 'to', path),
      }));
      return [{ kind: 'range', ...base, bands, step: reader.number(from, 'step', at, 1), comment }];
    }
    case 'checklist': {
      const entries = parts('entries', (part, path) => ({
        id: makeId(),
        text: reader.text(part, 'text', path),
        points: reader.numberOrNull(part, 'points', path),
      }));
      const cannotTell = reader.flag(from, 'cannotTell', at, false);
      return [{ kind: 'checklist', ...base, entries, comment, ...(cannotTell && { cannotTell }) }];
    }
    case 'prompt':
      return [{ kind: 'prompt', ...base, minimumWords: reader.number(from, 'minimumWords', at, 0) }];
    case 'pair': {
      const worksLabel = reader.text(from, 'worksLabel', at, '');
      const nextLabel = reader.text(from, 'nextLabel', at, '');
      return [
        { kind: 'pair', ...base, worksLabel, nextLabel, minimumWords: reader.number(from, 'minimumWords', at, 0) },
      ];
    }
    case 'number': {
      const minimum = reader.numberOrNull(from, 'minimum', at);
      const maximum = reader.numberOrNull(from, 'maximum', at);
      const whole = reader.flag(from, 'whole', at, true);
      return [{ kind: 'number', ...base, minimum, maximum, whole, unit: reader.text(from, 'unit', at, '') }];
    }
    case 'choice': {
      const options = parts('options', (part, path) => ({ id: makeId(), title: reader.text(part, 'title', path) }));
      return [{ kind: 'choice', ...base, options, multiple: reader.flag(from, 'multiple', at, false), comment }];
    }
  }
}
