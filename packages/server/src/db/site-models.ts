import type { ContentType, Field, Right } from '@typikon/core';
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import { PageKindModel, ProfileModel } from './models';

/** A role that people have. */
export class SiteRoleModel extends Model<InferAttributes<SiteRoleModel>, InferCreationAttributes<SiteRoleModel>> {
  declare id: string;
  declare label: string;
  declare description: string;
  declare rights: Right[];
  declare position: number;
}

/** Somebody who works with the site. */
export class PersonModel extends Model<InferAttributes<PersonModel>, InferCreationAttributes<PersonModel>> {
  declare id: string;
  declare label: string;
  declare position: number;
  declare roles?: NonAttribute<PersonRoleModel[]>;
}

export class PersonRoleModel extends Model<InferAttributes<PersonRoleModel>, InferCreationAttributes<PersonRoleModel>> {
  declare personId: string;
  declare roleId: string;
  declare position: number;
}

/** A kind of document. */
export class ContentTypeModel extends Model<InferAttributes<ContentTypeModel>, InferCreationAttributes<ContentTypeModel>> {
  declare id: string;
  declare label: string;
  declare icon: string;
  declare colour: string;
  declare description: string;
  declare pageKindId: string;
  declare publishing: CreationOptional<ContentType['publishing']>;
  declare approvers: CreationOptional<string[]>;
  declare versions: CreationOptional<ContentType['versions']>;
  declare position: number;
  declare fields?: NonAttribute<FieldModel[]>;
  declare places?: NonAttribute<TypePlaceModel[]>;
}

export class FieldModel extends Model<InferAttributes<FieldModel>, InferCreationAttributes<FieldModel>> {
  declare typeId: string;
  declare key: string;
  declare position: number;
  /** All that the site document says of the field, but for its key. */
  declare definition: Omit<Field, 'key'>;
}

/** Another kind of page that prints parts of a type's documents. */
export class TypePlaceModel extends Model<InferAttributes<TypePlaceModel>, InferCreationAttributes<TypePlaceModel>> {
  declare typeId: string;
  declare pageKindId: string;
  declare position: number;
}

/** One statement of who writes where with which profile; what it names stands in tables of its own. */
export class StatementModel extends Model<InferAttributes<StatementModel>, InferCreationAttributes<StatementModel>> {
  declare position: number;
  declare allRoles: CreationOptional<boolean>;
  declare allTypes: CreationOptional<boolean>;
  declare allFields: CreationOptional<boolean>;
  declare roles?: NonAttribute<StatementRoleModel[]>;
  declare types?: NonAttribute<StatementTypeModel[]>;
  declare fields?: NonAttribute<StatementFieldModel[]>;
  declare profiles?: NonAttribute<StatementProfileModel[]>;
}

export class StatementRoleModel extends Model<InferAttributes<StatementRoleModel>, InferCreationAttributes<StatementRoleModel>> {
  declare statement: number;
  declare roleId: string;
  declare position: number;
}

export class StatementTypeModel extends Model<InferAttributes<StatementTypeModel>, InferCreationAttributes<StatementTypeModel>> {
  declare statement: number;
  declare typeId: string;
  declare position: number;
}

export class StatementFieldModel extends Model<InferAttributes<StatementFieldModel>, InferCreationAttributes<StatementFieldModel>> {
  declare statement: number;
  declare key: string;
  declare position: number;
}

export class StatementProfileModel extends Model<InferAttributes<StatementProfileModel>, InferCreationAttributes<StatementProfileModel>> {
  declare statement: number;
  declare profileId: string;
  declare position: number;
}

/** The profiles for whatever no statement fits. */
export class FallbackProfileModel extends Model<InferAttributes<FallbackProfileModel>, InferCreationAttributes<FallbackProfileModel>> {
  declare profileId: string;
  declare position: number;
}

// Sequelize writes the column's name into these objects, so each column needs one of its own.
const id = () => ({ type: DataTypes.STRING(64), primaryKey: true }) as const;
const link = () => ({ type: DataTypes.STRING(64), allowNull: false }) as const;
const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false }) as const;
const number = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false }) as const;
const numberKey = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false, primaryKey: true }) as const;
const flag = () => ({ type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false }) as const;
const json = () => ({ type: DataTypes.JSON, allowNull: false }) as const;

/** Ties the models of a site to a connection. The tables themselves are made by the migrations. */
export function defineSiteModels(sequelize: Sequelize): void {
  const plain = { sequelize, timestamps: false, underscored: true } as const;
  SiteRoleModel.init(
    { id: id(), label: text(120), description: text(500), rights: json(), position: number() },
    { ...plain, tableName: 'site_roles' },
  );
  PersonModel.init({ id: id(), label: text(120), position: number() }, { ...plain, tableName: 'people' });
  PersonRoleModel.init({ personId: id(), roleId: id(), position: number() }, { ...plain, tableName: 'person_roles' });
  ContentTypeModel.init(
    {
      id: id(),
      label: text(120),
      icon: text(64),
      colour: text(20),
      description: text(1000),
      pageKindId: link(),
      publishing: { ...text(12), defaultValue: 'at-once' },
      approvers: { ...json(), defaultValue: [] },
      versions: { ...json(), defaultValue: {} },
      position: number(),
    },
    { ...plain, tableName: 'content_types' },
  );
  FieldModel.init({ typeId: id(), key: id(), position: number(), definition: json() }, { ...plain, tableName: 'fields' });
  TypePlaceModel.init({ typeId: id(), pageKindId: id(), position: number() }, { ...plain, tableName: 'type_places' });
  StatementModel.init(
    { position: numberKey(), allRoles: flag(), allTypes: flag(), allFields: flag() },
    { ...plain, tableName: 'statements' },
  );
  StatementRoleModel.init({ statement: numberKey(), roleId: id(), position: number() }, { ...plain, tableName: 'statement_roles' });
  StatementTypeModel.init({ statement: numberKey(), typeId: id(), position: number() }, { ...plain, tableName: 'statement_types' });
  StatementFieldModel.init({ statement: numberKey(), key: id(), position: number() }, { ...plain, tableName: 'statement_fields' });
  StatementProfileModel.init(
    { statement: numberKey(), profileId: id(), position: number() },
    { ...plain, tableName: 'statement_profiles' },
  );
  FallbackProfileModel.init({ profileId: id(), position: number() }, { ...plain, tableName: 'fallback_profiles' });

  PersonModel.hasMany(PersonRoleModel, { as: 'roles', foreignKey: 'personId' });
  PersonRoleModel.belongsTo(SiteRoleModel, { foreignKey: 'roleId' });
  ContentTypeModel.hasMany(FieldModel, { as: 'fields', foreignKey: 'typeId' });
  ContentTypeModel.hasMany(TypePlaceModel, { as: 'places', foreignKey: 'typeId' });
  ContentTypeModel.belongsTo(PageKindModel, { foreignKey: 'pageKindId' });
  StatementModel.hasMany(StatementRoleModel, { as: 'roles', foreignKey: 'statement' });
  StatementModel.hasMany(StatementTypeModel, { as: 'types', foreignKey: 'statement' });
  StatementModel.hasMany(StatementFieldModel, { as: 'fields', foreignKey: 'statement' });
  StatementModel.hasMany(StatementProfileModel, { as: 'profiles', foreignKey: 'statement' });
  StatementProfileModel.belongsTo(ProfileModel, { foreignKey: 'profileId' });
}
