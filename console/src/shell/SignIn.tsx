import { Button, Card, Form, Input, Modal } from "antd";

import { useSignIn } from "./session";
import { ErrorAlert } from "../parts/ErrorAlert";

interface Given {
  email: string;
  password: string;
}

export function SignIn(): React.ReactNode {
  return (
    <main className="sign-in">
      <Card>
        <h1>Anchorline</h1>
        <p className="muted">Sign in to set up forms and read records.</p>
        <SignInForm />
      </Card>
    </main>
  );
}

/** Signing in again without leaving the page: what was typed into it is still there. */
export function SignInAgain(): React.ReactNode {
  return (
    <Modal title="Sign in again" open closable={false} keyboard={false} mask={{ closable: false }} footer={null}>
      <p>Your session has ended. Everything on this page stays as it is.</p>
      <SignInForm />
    </Modal>
  );
}

function SignInForm(): React.ReactNode {
  const signIn = useSignIn();
  return (
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
  );
}
