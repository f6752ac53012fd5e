import { useLayouts } from "../layouts";
import type { Difference } from "./schemas";

/** What becomes different, in sentences; countries of which the same is said stand together. */
export function DifferenceList({ differences }: { differences: Difference[] }): React.ReactNode {
  const names = new Map((useLayouts().data ?? []).map((entry) => [entry.country_code, entry.name]));
  const codes = [...new Set(differences.map((difference) => difference.country_code))];
  if (!codes.length) return <p className="hint">Nothing yet.</p>;
  const groups = new Map<string, string[]>();
  for (const code of codes) {
    const said = differences.filter((one) => one.country_code === code).map(({ detail }) => detail);
    const key = said.join("\n");
    groups.set(key, [...(groups.get(key) ?? []), names.get(code) ?? code]);
  }
  return [...groups].map(([said, countries]) => (
    <div key={said} className="difference-group">
      <h3>{countries.join(", ")}</h3>
      <ul className="plain">
        {said.split("\n").map((detail) => (
          <li key={detail}>{detail}</li>
        ))}
      </ul>
    </div>
  ));
}
