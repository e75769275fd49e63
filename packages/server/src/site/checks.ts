import type { Problem, Site } from '@typikon/core';
import { fn, type Transaction } from 'sequelize';
import { DocumentModel } from '../db/document-models';
import { PageKindModel, ProfileModel } from '../db/models';
import { ContentTypeModel } from '../db/site-models';

/** Why a content type that would go has to stay; empty where none does. */
export async function heldTypes({ types }: Pick<Site, 'types'>, transaction: Transaction): Promise<string> {
  const used = await DocumentModel.findAll({ attributes: ['typeId', [fn('COUNT', '*'), 'n']], group: ['typeId'], raw: true, transaction });
  for (const { typeId, n } of used as unknown as { typeId: string; n: number }[]) {
    if (types.some(({ id }) => id === typeId)) continue;
    const label = (await ContentTypeModel.findByPk(typeId, { attributes: ['label'], raw: true, transaction }))?.label ?? typeId;
    return `${n === 1 ? 'One document is' : `${n} documents are`} of the content type “${label}”, so it cannot go.`;
  }
  return '';
}

/** Profiles and kinds of page that a site names and that are not there. */
export async function unknownNames(site: Site, transaction: Transaction): Promise<Problem[]> {
  const ids = async (model: typeof ProfileModel | typeof PageKindModel): Promise<Set<string>> =>
    new Set((await (model as typeof ProfileModel).findAll({ attributes: ['id'], raw: true, transaction })).map(({ id }) => id));
  const [profiles, kinds] = [await ids(ProfileModel), await ids(PageKindModel)];
  const problems: Problem[] = [];
  const tell = (pointer: string, message: string): void => void problems.push({ profile: 'site', pointer, message });
  site.types.forEach(({ pageKind }, at) => kinds.has(pageKind) || tell(`/types/${at}/pageKind`, `there is no kind of page "${pageKind}"`));
  site.types.forEach(({ alsoOn }, at) =>
    alsoOn.forEach((id, place) => kinds.has(id) || tell(`/types/${at}/alsoOn/${place}`, `there is no kind of page "${id}"`)),
  );
  site.assignments.forEach(({ profiles: named }, at) =>
    named.forEach((id, place) => profiles.has(id) || tell(`/assignments/${at}/profiles/${place}`, `there is no profile "${id}"`)),
  );
  site.fallback.forEach((id, at) => profiles.has(id) || tell(`/fallback/${at}`, `there is no profile "${id}"`));
  return problems;
}
