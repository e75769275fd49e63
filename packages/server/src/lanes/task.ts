/** A request as it goes to a worker thread, with its body as it came. */
export interface RequestTask {
  app: 'api' | 'site';
  method: string;
  url: string;
  headers: [string, string][];
  body: ArrayBuffer | null;
  /** One cell: what became of the request so far, for whoever has to tell of it when the thread is ended. */
  stage: SharedArrayBuffer;
}

/** A worker thread's answer to a request. */
export interface RequestAnswer {
  status: number;
  headers: [string, string][];
  body: ArrayBuffer | null;
}

/** How far a request has come. */
export const Stage = { working: 0, committing: 1 } as const;

/** What a worker thread is made with. */
export interface WorkerSettings {
  database: { host: string; port: number; name: string; user: string; password: string };
  /** The origins of the application and of the site stand-in. */
  applicationOrigins: readonly string[];
  siteOrigins: readonly string[];
  imagesDir: string | undefined;
}
