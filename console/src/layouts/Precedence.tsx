/** Which layouts speak for a country, the strongest first. */

import { Link } from "react-router";

import type { OwnStep } from "./layouts";

export function Precedence({ own, country }: { own: OwnStep[]; country: string }): React.ReactNode {
  return (
    <p className="precedence">
      What holds for {country} now:{" "}
      {own.map((step) => (
        <span key={step.key}>
          <Link to={`/layouts/own/${step.key}`}>{step.title}</Link>{" "}
          {step.of_form ? "(for named forms)" : "(everywhere)"}, then{" "}
        </span>
      ))}
      the shipped layout.
    </p>
  );
}
