/** A page that fails is said to have failed, in its place; what was being edited is kept. */

import { Alert, Button, Space } from "antd";
import { Component } from "react";

import { PageHead } from "../parts/PageHead";
import { drawnAnew, everything, failed, isKeptAsDraft, letGo } from "../parts/held";
import { useUnsaved } from "../parts/useUnsaved";

interface State {
  problem: Error | null;
}

interface Props {
  /** Where one is: gone elsewhere, another page is shown. */
  at?: string;
  children: React.ReactNode;
}

export class PageBoundary extends Component<Props, State> {
  override state: State = { problem: null };

  static getDerivedStateFromError(thrown: unknown): State {
    // Before the page is taken down, or it would let go of what it holds.
    failed();
    return { problem: thrown instanceof Error ? thrown : new Error(String(thrown)) };
  }

  override componentDidUpdate(before: Props): void {
    if (this.state.problem && before.at !== this.props.at) this.again(letGo);
  }

  override componentWillUnmount(): void {
    if (this.state.problem) letGo();
  }

  private again(first: () => void): void {
    first();
    this.setState({ problem: null });
  }

  override render(): React.ReactNode {
    const { problem } = this.state;
    if (!problem) return this.props.children;
    const kept = everything();
    const isEditing = Object.keys(kept).length > 0;
    const isWhole = this.props.at !== undefined;
    return (
      <>
        {isWhole && <PageHead title="This page has failed" />}
        {isEditing && <StillUnsaved />}
        <Alert
          type="error"
          role="alert"
          showIcon
          title={isWhole ? "It came to something that it makes nothing of." : "This part of the page has failed"}
          description={
            <>
              {isEditing && <p>What you were changing is kept: show the page again to go on with it. Should it fail again, save it as a file first.</p>}
              {isKeptAsDraft() && <p>What you changed is in the draft, or kept in this browser until it can be.</p>}
              <p>
                Please tell whoever runs this service what stands here: <code>{problem.message.slice(0, 300)}</code>
              </p>
              <Space wrap>
                <Button type="primary" onClick={() => this.again(drawnAnew)}>
                  Show the page again
                </Button>
                {isEditing && <Button onClick={() => saved(kept)}>Save what was changed as a file</Button>}
                {isEditing && <Button onClick={() => this.again(letGo)}>Show it without the changes</Button>}
              </Space>
            </>
          }
        />
      </>
    );
  }
}

/** Gone elsewhere, what is kept would be lost: it is asked first, as on the page that has failed. */
function StillUnsaved(): React.ReactNode {
  useUnsaved(true);
  return null;
}

function saved(kept: Record<string, unknown>): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([JSON.stringify(kept, null, 2)], { type: "application/json" }));
  link.download = "what-was-changed.json";
  link.click();
  URL.revokeObjectURL(link.href);
}
