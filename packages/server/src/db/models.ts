import type { Expectation, Json, JsonObject, PageKind, payloadSchema } from '@typikon/core';
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { z } from 'zod';

/** A profile and its draft: the working copy that is edited. */
export class ProfileModel extends Model<InferAttributes<ProfileModel>, InferCreationAttributes<ProfileModel>> {
  declare id: string;
  /** The document as it is written, not resolved. */
  declare document: JsonObject;
  /** Counts the saves; the draft's entity tag. */
  declare revision: CreationOptional<number>;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

/** Every draft that was ever saved, so that none is lost to a later one. */
export class DraftHistoryModel extends Model<InferAttributes<DraftHistoryModel>, InferCreationAttributes<DraftHistoryModel>> {
  declare profileId: string;
  declare revision: number;
  declare document: JsonObject;
  declare savedAt: CreationOptional<Date>;
  /** The person, by id; empty for nobody known. */
  declare savedBy: CreationOptional<string>;
}

/** A released state of a profile, which never changes. */
export class ProfileEditionModel extends Model<InferAttributes<ProfileEditionModel>, InferCreationAttributes<ProfileEditionModel>> {
  declare profileId: string;
  /** Counts the editions of the profile from 1. */
  declare number: number;
  /** Its own document and those that it extends, from the nearest on. */
  declare chain: { id: string; document: JsonObject }[];
  /** The state of the draft that was released. */
  declare fromRevision: number;
  /** The earlier edition that was taken back to; null for one that comes from the draft. */
  declare backTo: CreationOptional<number | null>;
  declare note: CreationOptional<string>;
  /** What was known to be amiss, and why it was released all the same. */
  declare accepted: CreationOptional<{ what: string; why: string }[]>;
  /** What it did to the texts that were stored then; null where that was not looked at. */
  declare reach: CreationOptional<{ texts: number; touched: number; losing: number; words: number } | null>;
  /** Digests of what it rests on. */
  declare inputs: CreationOptional<Record<string, string>>;
  declare releasedAt: CreationOptional<Date>;
  /** The person, by id; empty for nobody known. */
  declare releasedBy: CreationOptional<string>;
}

/** A released state of something that the whole site has once. */
export class SharedEditionModel extends Model<InferAttributes<SharedEditionModel>, InferCreationAttributes<SharedEditionModel>> {
  declare part: 'house-limits' | 'pages' | 'site';
  /** Counts the editions from 1. */
  declare number: number;
  declare document: JsonObject;
  /** The state of the draft that was released. */
  declare fromRevision: number;
  /** The earlier edition that was taken back to; null for one that comes from the draft. */
  declare backTo: CreationOptional<number | null>;
  declare note: CreationOptional<string>;
  /** What was known to be amiss, and why it was released all the same. */
  declare accepted: CreationOptional<{ what: string; why: string }[]>;
  /** What it did to the texts that were stored then; null where that was not looked at. */
  declare reach: CreationOptional<ProfileEditionModel['reach']>;
  declare releasedAt: CreationOptional<Date>;
  /** The person, by id; empty for nobody known. */
  declare releasedBy: CreationOptional<string>;
}

export class SpecimenModel extends Model<InferAttributes<SpecimenModel>, InferCreationAttributes<SpecimenModel>> {
  declare id: string;
  declare name: string;
  declare kind: string;
  declare notes: string;
  /** The profile it is meant to be tried with first. */
  declare profileId: string;
  /** Whether it comes by paste, or stands in a document already. */
  declare arrives: 'paste' | 'stored';
  /** Everything that was on the clipboard. */
  declare payload: z.output<typeof payloadSchema>;
  /** What must come out of it. */
  declare expectations: Expectation[];
  /** The database gives it, so that no two have the same. */
  declare position: CreationOptional<number>;
  /** How long the payload is, in bytes of JSON. */
  declare size: CreationOptional<number>;
  /** Counts the saves; the entity tag. */
  declare revision: CreationOptional<number>;
}

/** A picture of the asset library. */
export class AssetModel extends Model<InferAttributes<AssetModel>, InferCreationAttributes<AssetModel>> {
  /** Its file name, which follows from its bytes. */
  declare name: string;
  /** What it is called, such as the file it came from; empty for one that came by paste. */
  declare title: CreationOptional<string>;
  declare folder: CreationOptional<string>;
  declare type: string;
  declare alt: string;
  declare widthPx: number;
  declare heightPx: number;
  declare bytes: Buffer;
  /** How many bytes there are. */
  declare size: CreationOptional<number>;
  declare createdAt: CreationOptional<Date>;
}

/** A CSS file of the site. */
export class StylesheetModel extends Model<InferAttributes<StylesheetModel>, InferCreationAttributes<StylesheetModel>> {
  declare id: string;
  declare purpose: CreationOptional<string>;
  /** The media query with which pages link it; empty for always. */
  declare media: CreationOptional<string>;
  declare css: string;
  /** Counts the saves; the entity tag. */
  declare revision: CreationOptional<number>;
}

/** Every text that a stylesheet ever had. */
export class StylesheetHistoryModel extends Model<
  InferAttributes<StylesheetHistoryModel>,
  InferCreationAttributes<StylesheetHistoryModel>
> {
  declare stylesheetId: string;
  declare revision: number;
  declare css: string;
  /** What was done, in a few words. */
  declare note: CreationOptional<string>;
  declare savedAt: CreationOptional<Date>;
}

export class PageKindModel extends Model<InferAttributes<PageKindModel>, InferCreationAttributes<PageKindModel>> {
  declare id: string;
  declare definition: PageKind;
  /** Counts the saves; the entity tag. */
  declare revision: CreationOptional<number>;
}

/** How alike the editor and the page were at a time, for the documents of a profile on a page kind. */
export class LikenessFigureModel extends Model<InferAttributes<LikenessFigureModel>, InferCreationAttributes<LikenessFigureModel>> {
  declare id: CreationOptional<number>;
  declare profileId: string;
  declare pageKindId: string;
  declare elements: number;
  declare alike: number;
  declare causes: number;
  declare takenAt: CreationOptional<Date>;
}

/** What the comparison of the editor with the page came to for one text. */
export class LikenessCountModel extends Model<InferAttributes<LikenessCountModel>, InferCreationAttributes<LikenessCountModel>> {
  declare documentId: string;
  declare fieldKey: string;
  declare profileId: string;
  declare pageKindId: string;
  /** Of the text that was compared. */
  declare revision: number;
  /** A digest of the rules, settings and stylesheets by which it was compared. */
  declare inputs: string;
  declare elements: number;
  declare alike: number;
  /** What makes one cause the same as another, shortened to a digest. */
  declare causes: string[];
  /** Why it could not be compared; empty where it was. */
  declare failure: CreationOptional<string>;
}

/** Work that is done in the background. */
export class JobModel extends Model<InferAttributes<JobModel>, InferCreationAttributes<JobModel>> {
  declare id: CreationOptional<number>;
  declare kind: string;
  declare subject: string;
  declare asked: CreationOptional<number>;
  declare attempts: CreationOptional<number>;
  declare dueAt: Date;
  declare lease: CreationOptional<string>;
  declare leasedUntil: Date | null;
  declare failure: CreationOptional<string>;
}

export class SettingModel extends Model<InferAttributes<SettingModel>, InferCreationAttributes<SettingModel>> {
  declare name: string;
  declare value: Json;
  /** Counts the saves; the entity tag. */
  declare revision: CreationOptional<number>;
}

/** Every value that a setting ever had. */
export class SettingHistoryModel extends Model<InferAttributes<SettingHistoryModel>, InferCreationAttributes<SettingHistoryModel>> {
  declare name: string;
  declare revision: number;
  declare value: Json;
  declare savedAt: CreationOptional<Date>;
  /** The person, by id; empty for nobody known. */
  declare savedBy: CreationOptional<string>;
}

// Sequelize writes the column's name into these objects, so each column needs one of its own.
const id = () => ({ type: DataTypes.STRING(64), primaryKey: true }) as const;
const longText = () => ({ type: DataTypes.TEXT('medium'), allowNull: false }) as const;
const json = () => ({ type: DataTypes.JSON, allowNull: false }) as const;
const moment = () => ({ type: DataTypes.DATE(3), allowNull: false }) as const;
const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false }) as const;
const number = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false }) as const;

/** Ties the models to a connection. The tables themselves are made by the migrations. */
export function defineModels(sequelize: Sequelize): void {
  const plain = { sequelize, timestamps: false, underscored: true } as const;
  ProfileModel.init(
    {
      id: id(),
      document: json(),
      revision: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 1 },
      createdAt: moment(),
      updatedAt: moment(),
    },
    { sequelize, underscored: true, tableName: 'profiles' },
  );
  DraftHistoryModel.init(
    {
      profileId: id(),
      revision: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true },
      document: json(),
      savedAt: { ...moment(), defaultValue: DataTypes.NOW },
      savedBy: { ...text(64), defaultValue: '' },
    },
    { ...plain, tableName: 'draft_history' },
  );
  const release = () =>
    ({
      number: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true },
      fromRevision: number(),
      backTo: { ...number(), allowNull: true },
      note: { ...text(1000), defaultValue: '' },
      accepted: { ...json(), defaultValue: [] },
      reach: { ...json(), allowNull: true },
      releasedAt: { ...moment(), defaultValue: DataTypes.NOW },
      releasedBy: { ...text(64), defaultValue: '' },
    }) as const;
  ProfileEditionModel.init(
    { profileId: id(), ...release(), chain: json(), inputs: { ...json(), defaultValue: {} } },
    { ...plain, tableName: 'profile_editions' },
  );
  SharedEditionModel.init(
    { part: { ...text(20), primaryKey: true }, ...release(), document: json() },
    { ...plain, tableName: 'shared_editions' },
  );
  SpecimenModel.init(
    {
      id: id(),
      name: text(200),
      kind: text(60),
      notes: text(1000),
      profileId: text(64),
      arrives: text(10),
      payload: json(),
      expectations: json(),
      position: { type: DataTypes.INTEGER, autoIncrement: true },
      size: { ...number(), defaultValue: 0 },
      revision: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 1 },
    },
    { ...plain, tableName: 'specimens' },
  );
  AssetModel.init(
    {
      name: id(),
      title: { ...text(200), defaultValue: '' },
      folder: { ...text(60), defaultValue: '' },
      type: text(40),
      alt: text(300),
      widthPx: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      heightPx: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      bytes: { type: DataTypes.BLOB('medium'), allowNull: false },
      size: { ...number(), defaultValue: 0 },
      createdAt: { ...moment(), defaultValue: DataTypes.NOW },
    },
    { ...plain, tableName: 'assets' },
  );
  const revision = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 1 }) as const;
  const now = () => ({ ...moment(), defaultValue: DataTypes.NOW }) as const;
  StylesheetModel.init(
    {
      id: id(),
      purpose: { ...text(300), defaultValue: '' },
      media: { ...text(200), defaultValue: '' },
      css: longText(),
      revision: revision(),
    },
    { ...plain, tableName: 'stylesheets' },
  );
  StylesheetHistoryModel.init(
    {
      stylesheetId: id(),
      revision: { ...revision(), primaryKey: true },
      css: longText(),
      note: { ...text(300), defaultValue: '' },
      savedAt: now(),
    },
    { ...plain, tableName: 'stylesheet_history' },
  );
  PageKindModel.init({ id: id(), definition: json(), revision: revision() }, { ...plain, tableName: 'page_kinds' });
  LikenessFigureModel.init(
    {
      id: { type: DataTypes.BIGINT.UNSIGNED, autoIncrement: true, primaryKey: true },
      profileId: text(64),
      pageKindId: text(64),
      elements: number(),
      alike: number(),
      causes: number(),
      takenAt: now(),
    },
    { ...plain, tableName: 'likeness_figures' },
  );
  LikenessCountModel.init(
    {
      documentId: id(),
      fieldKey: id(),
      profileId: text(64),
      pageKindId: text(64),
      revision: number(),
      inputs: text(64),
      elements: number(),
      alike: number(),
      causes: json(),
      failure: { ...text(300), defaultValue: '' },
    },
    { ...plain, tableName: 'likeness_counts' },
  );
  JobModel.init(
    {
      id: { type: DataTypes.BIGINT.UNSIGNED, autoIncrement: true, primaryKey: true },
      kind: text(40),
      subject: text(200),
      asked: { ...number(), defaultValue: 1 },
      attempts: { ...number(), defaultValue: 0 },
      dueAt: moment(),
      lease: { ...text(36), defaultValue: '' },
      leasedUntil: { ...moment(), allowNull: true },
      failure: { ...text(1000), defaultValue: '' },
    },
    { ...plain, tableName: 'jobs' },
  );
  // Sizes stand beside contents, so that a list need not load them.
  AssetModel.beforeSave((asset) => {
    if (asset.changed('bytes')) asset.size = asset.bytes.length;
  });
  SpecimenModel.beforeSave((specimen) => {
    if (specimen.changed('payload')) specimen.size = Buffer.byteLength(JSON.stringify(specimen.payload));
  });
  SettingModel.init({ name: id(), value: json(), revision: revision() }, { ...plain, tableName: 'settings' });
  SettingHistoryModel.init(
    {
      name: id(),
      revision: { ...revision(), primaryKey: true },
      value: json(),
      savedAt: { ...moment(), defaultValue: DataTypes.NOW },
      savedBy: { ...text(64), defaultValue: '' },
    },
    { ...plain, tableName: 'setting_history' },
  );
}
