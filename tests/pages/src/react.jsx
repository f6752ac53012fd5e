import { useEffect } from "react";
import { createRoot } from "react-dom/client";
import { useForm } from "react-hook-form";
import { COUNTRIES, EMPTY, hold, submit } from "./shop";

function Checkout() {
  const { register, handleSubmit, watch } = useForm({ defaultValues: EMPTY, mode: "onBlur" });
  const values = watch();
  useEffect(() => hold(values));
  return (
    <form onSubmit={handleSubmit(submit)}>
      <label>Street <input {...register("ship_street", { required: true })} /></label>
      <label>Town <input {...register("ship_town", { required: true })} /></label>
      <label>Postcode <input maxLength={10} {...register("ship_postcode")} /></label>
      <label>
        Country{" "}
        <select {...register("ship_country")}>
          <option value="">Choose</option>
          {COUNTRIES.map(({ value, text }) => <option key={value} value={value}>{text}</option>)}
        </select>
      </label>
      <label>Delivery note <input {...register("note")} /></label>
      <button type="submit">Order</button>
    </form>
  );
}

createRoot(document.getElementById("app")).render(<Checkout />);
