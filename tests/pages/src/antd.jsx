import { Button, Form, Input, Select } from "antd";
import { createRoot } from "react-dom/client";
import { COUNTRIES, EMPTY, hold, submit } from "./shop";

const OPTIONS = COUNTRIES.map(({ value, text }) => ({ value, label: text }));

function Checkout() {
  return (
    <Form layout="vertical" onValuesChange={(_changed, values) => hold(values)} onFinish={submit}>
      <Form.Item name="ship_street" label="Street"><Input /></Form.Item>
      <Form.Item name="ship_town" label="Town"><Input /></Form.Item>
      <Form.Item name="ship_postcode" label="Postcode"><Input maxLength={10} /></Form.Item>
      <Form.Item name="ship_country" label="Country"><Select options={OPTIONS} allowClear /></Form.Item>
      <Form.Item name="note" label="Delivery note"><Input /></Form.Item>
      <Button htmlType="submit">Order</Button>
    </Form>
  );
}

hold(EMPTY);
createRoot(document.getElementById("app")).render(<Checkout />);
