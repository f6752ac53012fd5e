/** Which target a screen is of, and why not the others. */

import type * as api from "../../../../embed/src/api";

export function Recognised({ answer }: { answer: api.RecognitionAnswer }): React.ReactNode {
  const { targets, trace } = answer;
  const titles = new Map(trace.map((one) => [one.target, one.title]));
  const named = targets.map((key) => titles.get(key) ?? key).join(" and ");
  return (
    <div role="status" className="recognised">
      <p>
        {targets.length === 0 && "No target matches."}
        {targets.length === 1 && `It is “${named}”.`}
        {targets.length > 1 && `A tie: ${named} match it equally well, and a person chooses.`}
      </p>
      <ul className="plain">
        {trace.map((one) => (
          <li key={one.target + one.screen}>
            <strong>{one.title}</strong> ({one.label}): {one.because}
            <ul>
              {one.conditions.map((condition, at) => (
                <li key={at} className={condition.held ? "held" : "failed"}>
                  {condition.held ? "✓" : "✗"} {condition.says}
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ul>
    </div>
  );
}
