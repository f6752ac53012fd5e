import { Button, Result } from "antd";
import { Link } from "react-router";

export function Lost(): React.ReactNode {
  return (
    <Result
      status="404"
      title="There is nothing at this address"
      extra={
        <Link to="/">
          <Button type="primary">Go to the first page</Button>
        </Link>
      }
    />
  );
}
