import { siteSchema, type Site, type Statement } from '@typikon/core';
import { Op, type CreationAttributes, type Model, type ModelStatic, type Transaction } from 'sequelize';
import { SettingHistoryModel, SettingModel } from '../db/models';
import {
  ContentTypeModel,
  FallbackProfileModel,
  FieldModel,
  PersonModel,
  PersonRoleModel,
  SiteRoleModel,
  StatementFieldModel,
  StatementModel,
  StatementProfileModel,
  StatementRoleModel,
  StatementTypeModel,
  TypePlaceModel,
} from '../db/site-models';

/** The setting whose revision counts the saves of the site, and whose history keeps every document. */
const NAME = 'site';
/** Positions are unique; while rows are put in order they stand beyond all others. */
const ASIDE = 1_000_000;

export interface StoredSite {
  site: Site;
  revision: number;
}

type Named = '*' | string[];
const inOrder = <Row extends { position: number }>(rows: readonly Row[] = []): Row[] => [...rows].sort((a, b) => a.position - b.position);
const named = <Row extends { position: number }>(isAll: boolean, rows: readonly Row[] | undefined, read: (row: Row) => string): Named =>
  isAll ? '*' : inOrder(rows).map(read);

function groupBy<Row, Key>(rows: readonly Row[], keyOf: (row: Row) => Key): Map<Key, Row[]> {
  const lists = new Map<Key, Row[]>();
  for (const row of rows) {
    const list = lists.get(keyOf(row));
    if (list === undefined) lists.set(keyOf(row), [row]);
    else list.push(row);
  }
  return lists;
}

/** The site as it is stored; one without anything where nothing was. */
export async function loadSite(transaction?: Transaction): Promise<StoredSite> {
  const of = { ...(transaction === undefined ? {} : { transaction }), order: [['position', 'ASC'] as [string, string]] };
  const setting = await SettingModel.findByPk(NAME, { attributes: ['revision'], ...(transaction === undefined ? {} : { transaction }) });
  const roles = await SiteRoleModel.findAll(of);
  const people = await PersonModel.findAll({ ...of, include: ['roles'] });
  const types = await ContentTypeModel.findAll({ ...of, include: ['fields'] });
  // Each list by itself: joined, they would multiply each other.
  const places = groupBy(await TypePlaceModel.findAll(of), ({ typeId }) => typeId);
  const statements = await StatementModel.findAll(of);
  const [ofRoles, ofTypes, ofFields, ofProfiles] = [
    await StatementRoleModel.findAll(of),
    await StatementTypeModel.findAll(of),
    await StatementFieldModel.findAll(of),
    await StatementProfileModel.findAll(of),
  ].map((rows) => groupBy(rows as { statement: number }[], ({ statement }) => statement)) as [
    Map<number, StatementRoleModel[]>,
    Map<number, StatementTypeModel[]>,
    Map<number, StatementFieldModel[]>,
    Map<number, StatementProfileModel[]>,
  ];
  const fallback = await FallbackProfileModel.findAll(of);
  const site = siteSchema.parse({
    format: 'typikon-site/1',
    roles: roles.map(({ id, label, description, rights }) => ({ id, label, description, rights })),
    people: people.map(({ id, label, roles: has }) => ({ id, label, roles: inOrder(has).map(({ roleId }) => roleId) })),
    types: types.map(({ id, label, icon, colour, description, pageKindId, publishing, approvers, versions, fields }) => ({
      id,
      label,
      icon,
      colour,
      description,
      pageKind: pageKindId,
      publishing,
      approvers,
      versions,
      alsoOn: (places.get(id) ?? []).map((place) => place.pageKindId),
      fields: inOrder(fields).map(({ key, definition }) => ({ key, ...definition })),
    })),
    assignments: statements.map(({ position, allRoles, allTypes, allFields }): Statement => ({
      roles: named(allRoles, ofRoles.get(position), ({ roleId }) => roleId),
      types: named(allTypes, ofTypes.get(position), ({ typeId }) => typeId),
      fields: named(allFields, ofFields.get(position), ({ key }) => key),
      profiles: inOrder(ofProfiles.get(position)).map(({ profileId }) => profileId),
    })),
    fallback: fallback.map(({ profileId }) => profileId),
  });
  return { site, revision: setting?.revision ?? 0 };
}

/** How often the site was saved. */
export async function siteRevision(): Promise<number> {
  return (await SettingModel.findByPk(NAME, { attributes: ['revision'], raw: true }))?.revision ?? 0;
}

/** The revision of the site, kept from others until the transaction ends. */
export async function lockSite(transaction: Transaction): Promise<number> {
  const setting = await SettingModel.findByPk(NAME, { transaction, lock: transaction.LOCK.UPDATE, attributes: ['revision'] });
  return setting?.revision ?? 0;
}

/**
 * Stores a site in the place of the one that is there.
 *
 * @throws ForeignKeyConstraintError where something names what is not there, or what goes is still in use
 */
export async function storeSite(site: Site, revision: number, transaction: Transaction): Promise<void> {
  const write = async <Row extends Model>(model: ModelStatic<Row>, rows: readonly CreationAttributes<Row>[]): Promise<void> => {
    if (rows.length > 0) await model.bulkCreate([...rows], { transaction });
  };
  const none = { where: {}, transaction };
  // Statements name everything else; they go first and come last.
  await FallbackProfileModel.destroy(none);
  await StatementModel.destroy(none);
  await FieldModel.destroy(none);
  await TypePlaceModel.destroy(none);
  await PersonModel.destroy(none);
  await SiteRoleModel.destroy(none);
  await write(
    SiteRoleModel,
    site.roles.map((role, position) => ({ ...role, position })),
  );
  await write(
    PersonModel,
    site.people.map(({ id, label }, position) => ({ id, label, position })),
  );
  await write(
    PersonRoleModel,
    site.people.flatMap(({ id, roles }) => [...new Set(roles)].map((roleId, position) => ({ personId: id, roleId, position }))),
  );
  await storeTypes(site, transaction);
  await write(
    FieldModel,
    site.types.flatMap(({ id, fields }) => fields.map(({ key, ...definition }, position) => ({ typeId: id, key, position, definition }))),
  );
  await write(
    TypePlaceModel,
    site.types.flatMap(({ id, alsoOn }) => [...new Set(alsoOn)].map((pageKindId, position) => ({ typeId: id, pageKindId, position }))),
  );
  const listed = <Row>(read: (statement: Statement) => Named, make: (statement: number, name: string, position: number) => Row): Row[] =>
    site.assignments.flatMap((one, at) => {
      const names = read(one);
      return names === '*' ? [] : [...new Set(names)].map((name, position) => make(at, name, position));
    });
  await write(
    StatementModel,
    site.assignments.map(({ roles, types, fields }, position) => ({
      position,
      allRoles: roles === '*',
      allTypes: types === '*',
      allFields: fields === '*',
    })),
  );
  await write(
    StatementRoleModel,
    listed(
      ({ roles }) => roles,
      (statement, roleId, position) => ({ statement, roleId, position }),
    ),
  );
  await write(
    StatementTypeModel,
    listed(
      ({ types }) => types,
      (statement, typeId, position) => ({ statement, typeId, position }),
    ),
  );
  await write(
    StatementFieldModel,
    listed(
      ({ fields }) => fields,
      (statement, key, position) => ({ statement, key, position }),
    ),
  );
  await write(
    StatementProfileModel,
    listed(
      ({ profiles }) => profiles,
      (statement, profileId, position) => ({ statement, profileId, position }),
    ),
  );
  await write(
    FallbackProfileModel,
    [...new Set(site.fallback)].map((profileId, position) => ({ profileId, position })),
  );
  await SettingModel.upsert({ name: NAME, value: {}, revision }, { transaction });
  await SettingHistoryModel.create({ name: NAME, revision, value: site }, { transaction });
}

/** Content types stay the same rows, since documents belong to them. */
async function storeTypes({ types }: Site, transaction: Transaction): Promise<void> {
  await ContentTypeModel.destroy({ where: { id: { [Op.notIn]: types.map(({ id }) => id) } }, transaction });
  await ContentTypeModel.increment({ position: ASIDE }, { where: {}, transaction });
  for (const [position, { pageKind, alsoOn: _alsoOn, fields: _fields, ...type }] of types.entries())
    await ContentTypeModel.upsert({ ...type, pageKindId: pageKind, position }, { transaction });
}
