import { Alert } from "antd";

/** What went wrong, in the service's own words; nothing where nothing did. */
export function ErrorAlert({ error }: { error: Error | string | null | undefined }): React.ReactNode {
  if (!error) return null;
  const said = typeof error === "string" ? error : error.message;
  return <Alert className="notice" type="error" role="alert" showIcon title={said} />;
}
