/** Sending a file: by XMLHttpRequest, because fetch does not say how much has been sent. */

import { refusal } from "../../../embed/src/service";
import { ServiceError, sessionHeaders } from "../api/call";
import type { Job } from "./schemas";

export interface LoadOptions {
  changes: boolean;
  activate: "rule" | "always" | "never";
}

export function sendFile(
  dataset: string,
  file: File,
  options: LoadOptions,
  progress: (share: number) => void,
): Promise<Job> {
  const query = new URLSearchParams({ name: file.name, activate: options.activate });
  if (options.changes) query.set("changes", "true");
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open("POST", `/api/v1/datasets/${encodeURIComponent(dataset)}/editions?${query}`);
    const headers = { ...sessionHeaders(), "Content-Type": "application/octet-stream" };
    for (const [name, value] of Object.entries(headers)) request.setRequestHeader(name, value);
    request.setRequestHeader("Idempotency-Key", crypto.randomUUID());
    request.responseType = "json";
    request.upload.onprogress = (event) => progress(event.total ? event.loaded / event.total : 0);
    request.onerror = () => reject(new ServiceError(0, "The file could not be sent: the connection broke."));
    request.onload = () => {
      if (request.status === 202) resolve(request.response as Job);
      else reject(inWords(refusal(request.status, request.response)));
    };
    request.send(file);
  });
}

/** Without a table of rows to point at, the faults themselves are what is to be read. */
function inWords(refused: ServiceError): ServiceError {
  const said = refused.places.map((place) => place.detail).join(" ");
  return said ? new ServiceError(refused.status, said, refused.places) : refused;
}
