<script>
  import { COUNTRIES, EMPTY, hold, submit } from "./shop";

  let values = $state({ ...EMPTY });
  $effect(() => hold(values));
  function send(event) {
    event.preventDefault();
    submit(values);
  }
</script>

<form onsubmit={send}>
  <label>Street <input name="ship_street" bind:value={values.ship_street} /></label>
  <label>Town <input name="ship_town" bind:value={values.ship_town} /></label>
  <label>Postcode <input name="ship_postcode" maxlength="10" bind:value={values.ship_postcode} /></label>
  <label>
    Country
    <select name="ship_country" bind:value={values.ship_country}>
      <option value="">Choose</option>
      {#each COUNTRIES as { value, text }}
        <option {value}>{text}</option>
      {/each}
    </select>
  </label>
  <label>Delivery note <input name="note" bind:value={values.note} /></label>
  <button type="submit">Order</button>
</form>
