import type { Contract } from '@typikon/api';

type Routes = Contract[keyof Contract];
export type Method = Routes['method'];
export type PathOf<M extends Method> = Extract<Routes, { method: M }>['path'];
type RouteOf<M extends Method, P extends string> = Extract<Routes, { method: M; path: P }>;

type Content<Response> = Response extends { content: { 'application/json': { schema: { _output: infer Output } } } } ? Output : never;

/** What a route answers where it does what it is asked. */
export type AnswerOf<M extends Method, P extends PathOf<M>> =
  RouteOf<M, P> extends { responses: infer Responses } ? Content<Responses[Extract<keyof Responses, 200 | 201>]> : never;

/** What may stand behind the question mark of a route's address. */
export type QueryOf<M extends Method, P extends PathOf<M>> =
  RouteOf<M, P> extends { request: { query: { _input: infer Query } } } ? Query : Record<string, never>;

/** What stands in the braces of a route's address. */
export type ParametersOf<M extends Method, P extends PathOf<M>> =
  RouteOf<M, P> extends { request: { params: { _input: infer Parameters } } }
    ? { readonly [Name in keyof Parameters]: string }
    : Record<string, never>;
