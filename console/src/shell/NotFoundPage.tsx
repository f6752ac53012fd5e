import { Button, Result } from "antd";
import { Link } from "react-router";

export function NotFoundPage(): React.ReactNode {
  return (
    <Result
      status="404"
      title={<h1>There is nothing at this address</h1>}
      extra={
        <Link to="/">
          <Button type="primary">Go to the first page</Button>
        </Link>
      }
    />
  );
}
