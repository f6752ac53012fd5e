/** Keys as the service has them, and what is done to them. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import type * as api from "../../../embed/src/api";
import { call } from "../api/call";
import { wholeList } from "../api/pages";

export type Key = api.KeySchema;
export type NewKey = api.NewKeyRequest;
export type NewSecret = api.NewSecretAnswer;

export function useKeys() {
  return useQuery({ queryKey: ["keys"], queryFn: () => wholeList<api.KeyList>("keys", "keys") });
}

/** A change of keys: a call of which the list is fetched anew afterwards. */
export function useKeyChange<Given, Answer>(change: (given: Given) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({ mutationFn: change, onSuccess: () => queries.invalidateQueries({ queryKey: ["keys"] }) });
}

export const makeKey = (wanted: NewKey): Promise<NewSecret> => call("keys", { method: "POST", body: wanted });

export const rotateKey = ({ id, hours }: { id: string; hours: number }): Promise<NewSecret> =>
  call(`keys/${id}/rotate`, { method: "POST", body: { overlap_hours: hours } });

export const endKey = (id: string): Promise<Key> => call(`keys/${id}/end`, { method: "POST" });
