import { RichText } from '../../kit/index.js';
import { say } from '../../words/plan.js';

interface RichProps {
  readonly label: string;
  readonly about: string;
  readonly html: string;
  readonly readOnly: boolean;
  readonly onChange: (html: string) => void;
}

/** Rich text of the plan, with what it is for above it. */
export function Rich({ label, about, html, readOnly, onChange }: RichProps) {
  return (
    <div>
      <p className="mb-1 font-medium">{say('labelAbout', { label, about })}</p>
      <div className="rounded border border-edge bg-salt px-3 pb-2">
        <RichText label={label} html={html} editable={!readOnly} onChange={onChange} />
      </div>
    </div>
  );
}
