/** What is asked about the cupboard of a class. */
import { queryOptions } from "@tanstack/react-query";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";

export type Item = Schema["ItemShape"];
export type OpenedItem = Schema["OpenedItem"];

export const cupboardQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "cupboard"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/cupboard", { params: { path: { group_id } } })),
  });

export const itemQuery = (group_id: number, item_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "cupboard", item_id],
    queryFn: () => data(client.GET("/api/cupboard/{item_id}", { params: { path: { item_id } } })),
  });

export const copiesQuery = (group_id: number, item_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "copies", item_id],
    queryFn: () => data(client.GET("/api/cupboard/{item_id}/copies", { params: { path: { item_id } } })),
  });

/** What was given out. */
export const givenQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "given"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/given", { params: { path: { group_id } } })),
  });

/** How far each has come with it. */
export const givenToQuery = (group_id: number, given_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "given", given_id],
    queryFn: () => data(client.GET("/api/given/{given_id}/students", { params: { path: { given_id } } })),
  });
