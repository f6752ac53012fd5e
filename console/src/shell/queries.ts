/** The cache of what the service has answered. */

import { QueryClient } from "@tanstack/react-query";

import { ServiceError } from "../api/call";

export const queries = new QueryClient({
  defaultOptions: {
    queries: {
      // A refusal stays a refusal; only silence is worth another try.
      retry: (count, error) => count < 2 && !(error instanceof ServiceError && error.status > 0),
      staleTime: 5_000,
    },
  },
});
