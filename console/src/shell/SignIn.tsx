import { Button, Card, Form, Input } from "antd";

import { useSignIn } from "./session";
import { ErrorAlert } from "../parts/ErrorAlert";

interface Given {
  email: string;
  password: string;
}

export function SignIn(): React.ReactNode {
  const signIn = useSignIn();
  return (
    <main className="sign-in">
      <Card>
        <h1>Anchorline</h1>
        <p className="muted">Sign in to set up forms and read records.</p>
        <Form<Given> layout="vertical" requiredMark={false} onFinish={(given) => signIn.mutate(given)}>
          <Form.Item
            name="email"
            label="E-mail"
            rules={[{ required: true, message: "Type your e-mail address." }]}
          >
            <Input type="email" autoComplete="username" autoFocus size="large" />
          </Form.Item>
          <Form.Item
            name="password"
            label="Password"
            rules={[{ required: true, message: "Type your password." }]}
          >
            <Input type="password" autoComplete="current-password" size="large" />
          </Form.Item>
          {signIn.isError && (
            <ErrorAlert error={signIn.error} />
          )}
          <Button type="primary" htmlType="submit" size="large" block loading={signIn.isPending}>
            Sign in
          </Button>
        </Form>
      </Card>
    </main>
  );
}
