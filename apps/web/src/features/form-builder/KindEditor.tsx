import { ChoiceEditor, NumberEditor, PairEditor } from './plainEditors.js';
import { MinimumWords, type KindEditorProps } from './KindParts.js';
import { ChecklistEditor, CriterionEditor, RangeEditor } from './scoredEditors.js';

/** What is particular to the kind of an item. */
export function KindEditor({ item, ...rest }: KindEditorProps) {
  switch (item.kind) {
    case 'criterion':
      return <CriterionEditor item={item} {...rest} />;
    case 'range':
      return <RangeEditor item={item} {...rest} />;
    case 'checklist':
      return <ChecklistEditor item={item} {...rest} />;
    case 'pair':
      return <PairEditor item={item} {...rest} />;
    case 'number':
      return <NumberEditor item={item} {...rest} />;
    case 'choice':
      return <ChoiceEditor item={item} {...rest} />;
    case 'prompt':
      return (
        <MinimumWords value={item.minimumWords} onChange={(minimumWords) => rest.onChange({ ...item, minimumWords })} />
      );
  }
}
