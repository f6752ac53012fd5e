import { Button, Card, Form, Input, Radio } from "antd";

import type { FormDocument } from "../../api/schemas";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { useBegin } from "./useBegin";

interface Given {
  title: string;
  kind: FormDocument["kind"];
}

export function FromEmpty(): React.ReactNode {
  const begin = useBegin();
  return (
    <Card size="small" className="narrow">
      <Form<Given>
        layout="vertical"
        initialValues={{ kind: "web" }}
        requiredMark={false}
        onFinish={({ title, kind }) => begin.mutate({ key: "x", kind, title: title.trim(), fields: [], slots: [] })}
      >
        <Form.Item name="title" label="Title" rules={[{ required: true, whitespace: true, message: "Give it a title." }]}>
          <Input maxLength={200} placeholder="Book a visit" autoFocus />
        </Form.Item>
        <Form.Item name="kind" label="Who fills it?">
          <Radio.Group
            options={[
              { value: "web", label: "Anyone, at its public page" },
              { value: "record", label: "Staff, as a record" },
            ]}
          />
        </Form.Item>
        {begin.isError && <ErrorAlert error={begin.error} />}
        <Button type="primary" htmlType="submit" loading={begin.isPending}>
          Begin
        </Button>
      </Form>
    </Card>
  );
}
