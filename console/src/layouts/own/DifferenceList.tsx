import type { Difference } from "./shapes";

/** What becomes different, in sentences, by country where there are several. */
export function DifferenceList({ differences }: { differences: Difference[] }): React.ReactNode {
  const codes = [...new Set(differences.map((difference) => difference.country_code))];
  if (!codes.length) return <p className="hint">Nothing yet.</p>;
  return codes.map((code) => (
    <div key={code}>
      {codes.length > 1 && <h3>{code}</h3>}
      <ul className="plain">
        {differences
          .filter((difference) => difference.country_code === code)
          .map(({ detail }) => (
            <li key={detail}>{detail}</li>
          ))}
      </ul>
    </div>
  ));
}
