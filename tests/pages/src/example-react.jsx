import { createRoot } from "react-dom/client";
import { Checkout } from "../../../docs/examples/checkout.jsx";

const root = createRoot(document.getElementById("app"));
root.render(<Checkout />);
window.leave = () => root.unmount();
