import { Button, Result } from "antd";

/** What is shown where something could not be loaded: what went wrong, and a way on. */
export function LoadError({ error, again }: { error: Error; again: () => void }): React.ReactNode {
  return (
    <div role="alert">
      <Result
        status="warning"
        title="This could not be loaded"
        subTitle={error.message}
        extra={<Button onClick={again}>Try again</Button>}
      />
    </div>
  );
}
