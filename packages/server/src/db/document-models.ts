import type { Census } from '@typikon/core';
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import { ContentTypeModel } from './site-models';

/** A stored document of the site; what it says stands in its fields. */
export class DocumentModel extends Model<InferAttributes<DocumentModel>, InferCreationAttributes<DocumentModel>> {
  declare id: string;
  declare title: string;
  declare typeId: string;
  declare pageKindId: string;
  declare createdAt: CreationOptional<Date>;
  declare changedAt: CreationOptional<Date>;
  /** The person who changed it last, by id; empty for nobody known. */
  declare changedBy: CreationOptional<string>;
  /** All that a reader sees of it, to find it by. */
  declare words: string;
  /** The profiles of its texts, each with commas around it. */
  declare profiles: CreationOptional<string>;
  /** Counts the saves; the entity tag. */
  declare revision: CreationOptional<number>;
  /** The version that readers see; null for none. */
  declare publicRevision: CreationOptional<number | null>;
  /** The version that waits for somebody's approval; null for none. */
  declare askedRevision: CreationOptional<number | null>;
  declare fields?: NonAttribute<DocumentFieldModel[]>;
}

/** What stands in one field of a document. */
export class DocumentFieldModel extends Model<InferAttributes<DocumentFieldModel>, InferCreationAttributes<DocumentFieldModel>> {
  declare documentId: string;
  declare fieldKey: string;
  /** The profile by which rich text was last saved, which may be gone since; null for what is no rich text. */
  declare profileId: string | null;
  /** The role of the person who stored it; house limits may except it. Empty for none. */
  declare role: CreationOptional<string>;
  /** The kind of page on which it shows first. */
  declare pageKindId: string;
  /** Clean markup, or plain text. */
  declare value: string;
  /** What the rich text holds, counted when it is stored. */
  declare census: Census | null;
  /** How long the value is, in bytes of UTF-8. */
  declare size: CreationOptional<number>;
  /** What the rules took of it while it was written, by what it is called, with commas between. */
  declare taken: CreationOptional<string>;
  /** Counts the changes of this field. */
  declare revision: CreationOptional<number>;
  /** The edition of the profile by which rich text was last saved; null where it is not known. */
  declare edition: CreationOptional<number | null>;
  /** The edition by which it is shown until it is edited, because a release left it as it was; null for the last. */
  declare keptEdition: CreationOptional<number | null>;
  declare document?: NonAttribute<DocumentModel>;
}

/** A document as it was after one save; what stood in its fields is in the table `version_fields`, and once for all in `contents`. */
export class DocumentVersionModel extends Model<InferAttributes<DocumentVersionModel>, InferCreationAttributes<DocumentVersionModel>> {
  declare documentId: string;
  declare revision: number;
  declare title: string;
  /** By what it came about. */
  declare how: CreationOptional<string>;
  declare savedAt: CreationOptional<Date>;
  declare savedBy: CreationOptional<string>;
  /** Whether readers ever saw it. */
  declare wasPublic: CreationOptional<boolean>;
}

// Sequelize writes the column's name into these objects, so each column needs one of its own.
const id = () => ({ type: DataTypes.STRING(64), primaryKey: true }) as const;
const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false }) as const;
const longText = () => ({ type: DataTypes.TEXT('medium'), allowNull: false }) as const;
const now = () => ({ type: DataTypes.DATE(3), allowNull: false, defaultValue: DataTypes.NOW }) as const;
const revision = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 1 }) as const;

/** Ties the models of documents to a connection. The tables themselves are made by the migrations. */
export function defineDocumentModels(sequelize: Sequelize): void {
  const plain = { sequelize, timestamps: false, underscored: true } as const;
  DocumentModel.init(
    {
      id: id(),
      title: text(200),
      typeId: text(64),
      pageKindId: text(64),
      createdAt: now(),
      changedAt: now(),
      changedBy: { ...text(64), defaultValue: '' },
      words: longText(),
      profiles: { ...text(1000), defaultValue: '' },
      revision: revision(),
      publicRevision: { type: DataTypes.INTEGER.UNSIGNED, allowNull: true, defaultValue: 1 },
      askedRevision: { type: DataTypes.INTEGER.UNSIGNED, allowNull: true },
    },
    { ...plain, tableName: 'documents' },
  );
  DocumentFieldModel.init(
    {
      documentId: id(),
      fieldKey: id(),
      profileId: { type: DataTypes.STRING(64), allowNull: true },
      role: { ...text(64), defaultValue: '' },
      pageKindId: text(64),
      value: longText(),
      census: { type: DataTypes.JSON, allowNull: true },
      size: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 0 },
      taken: { ...text(300), defaultValue: '' },
      revision: revision(),
      edition: { type: DataTypes.INTEGER.UNSIGNED, allowNull: true },
      keptEdition: { type: DataTypes.INTEGER.UNSIGNED, allowNull: true },
    },
    { ...plain, tableName: 'document_fields' },
  );
  DocumentVersionModel.init(
    {
      documentId: id(),
      revision: { ...revision(), primaryKey: true },
      title: text(200),
      how: { ...text(12), defaultValue: 'written' },
      savedAt: now(),
      savedBy: { ...text(64), defaultValue: '' },
      wasPublic: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: true },
    },
    { ...plain, tableName: 'document_versions' },
  );
  // Sizes stand beside contents, so that a list need not load them.
  const sizeOf = (field: DocumentFieldModel): void => {
    if (field.changed('value')) field.size = Buffer.byteLength(field.value);
  };
  DocumentFieldModel.beforeSave(sizeOf);
  DocumentFieldModel.beforeBulkCreate((fields) => fields.forEach(sizeOf));
  DocumentModel.hasMany(DocumentFieldModel, { as: 'fields', foreignKey: 'documentId' });
  DocumentFieldModel.belongsTo(DocumentModel, { as: 'document', foreignKey: 'documentId' });
  DocumentModel.belongsTo(ContentTypeModel, { foreignKey: 'typeId' });
}
