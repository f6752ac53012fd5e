/** A picture of what went where: parts of the address left, fields right, lines between. */

import type { FillAnswer } from "../../api/schemas";
import { valueAt } from "../../../../embed/src/dictionary";

const ROW = 30;
const WIDTH = 640;
const LEFT = 230;
const RIGHT = 400;
const WRITES = new Set(["wrote", "appended", "replaced", "linked", "made"]);

export function TraceDrawing(props: { answer: FillAnswer; called: (key: string) => string; labels: Record<string, string> }): React.ReactNode {
  const { answer, called, labels } = props;
  const steps = answer.trace.filter((step) => WRITES.has(step.kind));
  const lost = new Set(answer.trace.filter((step) => step.kind === "not_taken" || step.kind === "lost").flatMap((step) => step.components));
  const sources = [...new Set([...steps.flatMap((step) => step.components), ...lost])];
  const fields = Object.keys(answer.values);
  const lines = [...new Set(steps.flatMap((step) => step.components.map((one) => `${one} ${step.field}`)))].map((pair) => pair.split(" ") as [string, string]);
  const height = Math.max(sources.length, fields.length) * ROW + 8;
  const y = (at: number): number => at * ROW + ROW / 2 + 4;
  if (!sources.length) return null;
  return (
    <svg className="trace-drawing" viewBox={`0 0 ${WIDTH} ${height}`} role="img" aria-label="What went where; the table below says the same">
      {lines.map(([from, to]) => {
        const [start, end] = [y(sources.indexOf(from)), y(fields.indexOf(to))];
        const middle = (LEFT + RIGHT) / 2;
        return <path key={`${from} ${to}`} className="went" d={`M ${LEFT} ${start} C ${middle} ${start}, ${middle} ${end}, ${RIGHT} ${end}`} />;
      })}
      {sources.map((one, at) => (
        <g key={one} className={lost.has(one) ? "not-taken" : ""}>
          <circle cx={LEFT} cy={y(at)} r={4} />
          <text x={LEFT - 12} y={y(at)} textAnchor="end">
            {valueAt(labels, one) ?? one}
            {lost.has(one) ? " – goes nowhere" : ""}
          </text>
        </g>
      ))}
      {fields.map((key, at) => (
        <g key={key} className={valueAt(answer.values, key) || valueAt(answer.labels, key) ? "" : "cleared"}>
          <circle cx={RIGHT} cy={y(at)} r={4} />
          <text x={RIGHT + 12} y={y(at)}>
            {shortened(called(key))}
          </text>
        </g>
      ))}
    </svg>
  );
}

function shortened(text: string): string {
  return text.length > 28 ? `${text.slice(0, 27)}…` : text;
}
