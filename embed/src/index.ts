/** The custom elements: `<anchorline-finder>` and `<anchorline-form>`. */

import { FinderElement } from "./finder/element";
import { FormElement } from "./form/element";

customElements.define("anchorline-finder", FinderElement);
customElements.define("anchorline-form", FormElement);

export { FinderElement, FormElement };
