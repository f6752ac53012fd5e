/** Who is signed in. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { ServiceError, call, rememberCsrfToken } from "../api/call";
import type { Session } from "../api/schemas";

async function fetchSession(): Promise<Session | null> {
  try {
    const session = await call<Session>("session");
    rememberCsrfToken(session.csrf_token);
    return session;
  } catch (error) {
    if (error instanceof ServiceError && error.status === 401) return null;
    throw error;
  }
}

export function useSession() {
  return useQuery({ queryKey: ["session"], queryFn: fetchSession, staleTime: 60_000 });
}

export function useSignIn() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (given: { email: string; password: string }) =>
      call<Session>("session", { method: "POST", body: given }),
    onSuccess: (session) => {
      rememberCsrfToken(session.csrf_token);
      queries.setQueryData(["left"], false);
      queries.setQueryData(["session"], session);
    },
  });
}

/** Whether somebody has signed out here: then nothing of the page stays. */
export function useHasLeft(): boolean {
  return useQuery({ queryKey: ["left"], queryFn: () => false, staleTime: Number.POSITIVE_INFINITY, gcTime: Number.POSITIVE_INFINITY }).data ?? false;
}

export function useSignOut() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () => call<void>("session", { method: "DELETE" }),
    onSettled: () => {
      queries.setQueryData(["left"], true);
      queries.removeQueries({ predicate: ({ queryKey }) => !["session", "left"].includes(String(queryKey[0])) });
      queries.setQueryData(["session"], null);
    },
  });
}
