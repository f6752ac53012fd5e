/** What is wrong with a mapping, each with what could stand instead. */

import { Alert, Button } from "antd";

import type { Mapped } from "./place";
import { withAt } from "./pointers";
import { IF_WRITTEN } from "./rules";
import type { Finding } from "./useMapping";

export function Findings({ findings, design }: { findings: Finding[]; design: Mapped }): React.ReactNode {
  if (!findings.length) return null;
  return (
    <div className="findings">
      {findings.map((one, at) => (
        <Alert
          key={at}
          type={one.severity === "problem" ? "error" : "warning"}
          showIcon
          className="finding"
          title={one.detail}
          action={<Offers finding={one} design={design} />}
        />
      ))}
    </div>
  );
}

function Offers({ finding, design }: { finding: Finding; design: Mapped }): React.ReactNode {
  if (!finding.offers.length || finding.check === "examples") return null;
  return (
    <span className="offers">
      {finding.offers.map((offer) => (
        <Button
          key={offer}
          size="small"
          onClick={() => design.edit(withAt(design.document, finding.pointer, offer), `mended ${finding.pointer}`)}
        >
          {finding.pointer.endsWith("/if_written") ? IF_WRITTEN[offer] : `Use ${offer}`}
        </Button>
      ))}
    </span>
  );
}
