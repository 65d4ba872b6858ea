import { say } from '../words/defaults.js';
import { EMPTY_FORM, type CriterionItem, type FormItem, type ReviewForm } from '../form/form.js';
import { problem } from '../problem.js';
import type { FormReading, TitledForm } from './formFile.js';
import { StructureReader, type Path } from './structure.js';

/** What a written rubric needs from outside. */
export interface CaseSurroundings {
  /** A new UUID at every call. */
  readonly makeId: () => string;
  /** ISO 8601, with its zone. */
  readonly changedAt: string;
  /** Where the things written are to be found, without a slash at the end; need not be reachable. */
  readonly baseUri: string;
}

export interface CaseWriting {
  readonly document: Readonly<Record<string, unknown>>;
  /** Items that the standard has no place for. */
  readonly leftOut: readonly FormItem[];
}

/**
 * Writes the criteria and ranges of a form as a rubric of the open standard 1EdTech CASE 1.1
 * (CFRubric, CFRubricCriterion, CFRubricCriterionLevel). A band of a range becomes a level with the band's most
 * points as its score. Other kinds of items have no place in a rubric and are named in `leftOut`.
 */
export function writeCaseRubric({ title, form }: TitledForm, around: CaseSurroundings): CaseWriting {
  const rubricId = around.makeId();
  const named = (kind: string, id: string) => ({
    identifier: id,
    uri: `${around.baseUri}/${kind}/${id}`,
    lastChangeDateTime: around.changedAt,
  });
  const rubricItems = form.items.filter((item) => item.kind === 'criterion' || item.kind === 'range');
  const criteria = rubricItems.map((item, index) => {
    const criterionId = around.makeId();
    const levels =
      item.kind === 'criterion'
        ? item.levels.map(({ title: quality, description, points }) => ({ quality, description, score: points }))
        : item.bands.map(({ title: quality, description, to }) => ({ quality, description, score: to }));
    return {
      ...named('CFRubricCriteria', criterionId),
      category: item.title,
      description: item.guidance === '' ? item.title : item.guidance,
      weight: item.weight,
      position: index + 1,
      rubricId,
      CFRubricCriterionLevels: levels.map(({ score, ...level }, place) => ({
        ...named('CFRubricCriterionLevels', around.makeId()),
        ...level,
        ...(score !== null && { score }),
        position: place + 1,
        rubricCriterionId: criterionId,
      })),
    };
  });
  return {
    document: { ...named('CFRubrics', rubricId), title, CFRubricCriteria: criteria },
    leftOut: form.items.filter((item) => !rubricItems.includes(item as (typeof rubricItems)[number])),
  };
}

const MAX_CRITERIA = 60;
const MAX_LEVELS = 30;
/** Fields of the standard that a form here has no use for; all others not read are told of. */
const KNOWN = ['identifier', 'uri', 'title', 'description', 'lastChangeDateTime', 'CFRubricCriteria'];

/**
 * Reads a CASE 1.1 rubric: a CFRubric by itself, a set `{ CFRubrics: [...] }`, or a package that has one. Of several,
 * the one at `index` is read. Criteria and levels are put in the order of their `position`.
 */
export function readCaseRubric(value: unknown, makeId: () => string, index = 0): FormReading {
  const reader = new StructureReader();
  const outer = reader.object(value, []);
  const rubrics = rubricsIn(outer);
  const rubric = rubrics[index];
  if (rubric === undefined) return { found: null, problems: [problem('rubric-missing', [])], ignored: [] };
  const from = reader.object(rubric, []);
  const at: Path = ['CFRubricCriteria'];
  const items = byPosition(reader.list(from, 'CFRubricCriteria', [], MAX_CRITERIA)).map((one, place): FormItem => {
    const path = [...at, place];
    const criterion = reader.object(one, path);
    const category = reader.text(criterion, 'category', path, '');
    const description = reader.text(criterion, 'description', path, '');
    const levels = byPosition(reader.list(criterion, 'CFRubricCriterionLevels', path, MAX_LEVELS)).map((part, rank) => {
      const spot = [...path, 'CFRubricCriterionLevels', rank];
      const level = reader.object(part, spot);
      const quality = reader.text(level, 'quality', spot, '');
      const words = reader.text(level, 'description', spot, '');
      return {
        id: makeId(),
        title: quality === '' ? words : quality,
        description: quality === '' ? '' : words,
        points: reader.numberOrNull(level, 'score', spot),
      };
    });
    const item: CriterionItem = {
      kind: 'criterion',
      id: makeId(),
      title: category === '' ? description : category,
      guidance: category === '' || category === description ? '' : description,
      required: true,
      weight: reader.number(criterion, 'weight', path, 1),
      levels,
      comment: 'optional',
    };
    return item;
  });
  const form: ReviewForm = { ...EMPTY_FORM, items };
  const ignored = Object.keys(from).filter((name) => !KNOWN.includes(name));
  return { found: { title: reader.text(from, 'title', [], say('rubric')), form }, problems: reader.problems, ignored };
}

/** How many rubrics a document has, with their titles. */
export function caseRubricTitles(value: unknown): string[] {
  const outer =
    typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Record<string, unknown>) : {};
  return rubricsIn(outer).map((one) => {
    const title = (one as { title?: unknown } | null)?.title;
    return typeof title === 'string' && title !== '' ? title : say('rubric');
  });
}

function rubricsIn(outer: Readonly<Record<string, unknown>>): readonly unknown[] {
  if (Array.isArray(outer['CFRubricCriteria'])) return [outer];
  return Array.isArray(outer['CFRubrics']) ? (outer['CFRubrics'] as unknown[]) : [];
}

function byPosition(list: readonly unknown[]): unknown[] {
  const position = (one: unknown) => {
    const value = (one as { position?: unknown } | null)?.position;
    return typeof value === 'number' ? value : Infinity;
  };
  return [...list].sort((a, b) => {
    const [first, second] = [position(a), position(b)];
    return first === second ? 0 : first - second;
  });
}
