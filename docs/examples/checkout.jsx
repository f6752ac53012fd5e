// React: the page owns its inputs as ever; the target is attached while the component is there.
import { useEffect, useState } from "react";
import { attach } from "https://anchorline.example/embed/attach.js";

export function Checkout() {
  const [order, setOrder] = useState({ ship_street: "", ship_town: "", ship_postcode: "", ship_country: "" });
  const keep = (event) => setOrder((before) => ({ ...before, [event.target.name]: event.target.value }));
  useEffect(() => {
    const attachment = attach({ target: "checkout", key: "anl_browser_…" });
    return () => attachment.detach();
  }, []);
  return (
    <form>
      <label>Street <input name="ship_street" value={order.ship_street} onChange={keep} /></label>
      <label>Town <input name="ship_town" value={order.ship_town} onChange={keep} /></label>
      <label>Postcode <input name="ship_postcode" value={order.ship_postcode} onChange={keep} /></label>
      <label>
        Country{" "}
        <select name="ship_country" value={order.ship_country} onChange={keep}>
          <option value="">Choose</option>
          <option value="DE">Germany</option>
          <option value="GB">United Kingdom</option>
        </select>
      </label>
      <output>{JSON.stringify(order)}</output>
    </form>
  );
}
