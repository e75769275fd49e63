import {
  cleanWithoutLedger,
  DESK,
  Likeness,
  pageKindSchema,
  resolveProfile,
  settingsFor,
  type CompiledRules,
  type PageKind,
} from '@typikon/core';
import type { Logger } from 'pino';
import { DocumentModel, LikenessFigureModel, PageKindModel, ProfileModel, StylesheetModel } from './db/models';
import { rulesOf } from './rules';

/** So long nothing may change before the figures are taken, in milliseconds. */
const PAUSE_MS = 400;

/** Takes a figure of how alike the editor and the page are whenever something that matters has changed. */
export class LikenessFigures {
  private timer: NodeJS.Timeout | null = null;
  private running: Promise<void> = Promise.resolve();
  private isStopped = false;

  constructor(private readonly log: Logger) {}

  /** Something has changed: figures are taken soon, in pieces between which other work goes on. */
  changed(): void {
    if (this.isStopped) return;
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.timer = null;
      this.running = this.running.then(() => this.take()).catch((error: unknown) => this.log.error({ err: error }, 'figures of likeness'));
    }, PAUSE_MS);
    this.timer.unref();
  }

  /** Waits for what is under way, and takes no more. */
  async stop(): Promise<void> {
    this.isStopped = true;
    if (this.timer !== null) clearTimeout(this.timer);
    await this.running;
  }

  /** Takes the figures of every profile and page kind that have documents; one that is as it was is not stored again. */
  async take(): Promise<void> {
    const documents = await DocumentModel.findAll({ order: [['id', 'ASC']] });
    const kinds = new Map(
      (await PageKindModel.findAll()).map(({ id, definition }): [string, PageKind] => [id, pageKindSchema.parse(definition)]),
    );
    const sheets = new Map((await StylesheetModel.findAll()).map((sheet) => [sheet.id, sheet]));
    const profiles = new Map((await ProfileModel.findAll()).map(({ id, document }) => [id, document]));
    const pairs = new Map<string, DocumentModel[]>();
    for (const document of documents) {
      const pair = `${document.profileId} ${document.pageKindId}`;
      pairs.set(pair, [...(pairs.get(pair) ?? []), document]);
    }
    for (const all of pairs.values()) {
      const { profileId, pageKindId } = all[0]!;
      const resolution = resolveProfile(profileId, (id) => profiles.get(id));
      const page = kinds.get(pageKindId);
      if (!resolution.ok || page === undefined) continue;
      const { surface } = resolution.resolved.profile;
      const settings = settingsFor(surface, kinds.get(surface.pageKind) ?? page, page, (id) => sheets.get(id), DESK);
      const likeness = new Likeness(settings);
      const rules = new Map<string, CompiledRules>();
      for (const { id, html, role } of all) {
        if (this.isStopped) return;
        let compiled = rules.get(role);
        if (compiled === undefined) rules.set(role, (compiled = await rulesOf(profileId, role)));
        likeness.add({ id, html: cleanWithoutLedger(html, compiled) });
        await new Promise(setImmediate);
      }
      const { elements, alike, causes } = likeness.report();
      const last = await LikenessFigureModel.findOne({ where: { profileId, pageKindId }, order: [['id', 'DESC']] });
      if (last?.elements === elements && last.alike === alike && last.causes === causes.length) continue;
      await LikenessFigureModel.create({ profileId, pageKindId, elements, alike, causes: causes.length });
    }
  }
}
