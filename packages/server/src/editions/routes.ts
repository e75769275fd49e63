import { contract } from '@typikon/api';
import type { JsonObject } from '@typikon/core';
import type { Context } from 'hono';
import { Op, type Sequelize } from 'sequelize';
import { idOfActing } from '../auth/acting';
import { ProfileEditionModel } from '../db/models';
import { problem } from '../problem';
import { etagOf, matches } from '../routes/entity-tags';
import { linkNext, pageOf } from '../routes/pages';
import { router } from '../routes/shared';
import { deleteOutdated, type SiteService } from '../site/service';
import { follow, leftTexts } from './left';
import { besides, notAllowed, notLooked, refused, sharedBesides, toldBoth, toldLooking, toldScheduled, whoReleases } from './answers';
import { ReachService } from './reach';
import { lastEditions } from './repository';
import { ScheduledReleases } from './scheduled';
import { EditionService } from './service';

const told = ({ profileId, number, releasedAt, releasedBy, note, fromRevision, backTo, reach, accepted, inputs }: ProfileEditionModel) => ({
  profile: profileId,
  number,
  releasedAt: releasedAt.toISOString(),
  releasedBy,
  note,
  fromRevision,
  backTo,
  reach,
  accepted,
  inputs,
});
const whole = (edition: ProfileEditionModel) => ({ ...told(edition), chain: edition.chain });

/** Editions of profiles: what was released, releasing, and what a release would do to what is stored. */
export function editions(sequelize: Sequelize, site: SiteService, committing: () => void) {
  const service = new EditionService(sequelize, committing);
  const reaches = new ReachService(sequelize);
  const scheduled = new ScheduledReleases(sequelize, committing);
  const whoActs = async (context: Context): Promise<string> => idOfActing((await site.current()).site, context);
  return router()
    .openapi(contract.currentEditions, async (context) => {
      const { limit, after = '' } = context.req.valid('query');
      const rows = await lastEditions(sequelize, after, limit + 1);
      return context.json(pageOf(context, rows, limit, ({ profileId }) => profileId).map(whole), 200);
    })
    .openapi(contract.listEditions, async (context) => {
      const { id } = context.req.valid('param');
      const { limit, after } = context.req.valid('query');
      const behind = after === undefined ? {} : { number: { [Op.lt]: Number(after) || 0 } };
      const rows = await ProfileEditionModel.findAll({
        where: { profileId: id, ...behind },
        attributes: { exclude: ['chain'] },
        order: [['number', 'DESC']],
        limit: limit + 1,
      });
      if (rows.length === 0 && after === undefined) return problem(context, 404, `There is no profile "${id}".`);
      return context.json(pageOf(context, rows, limit, ({ number }) => String(number)).map(told), 200);
    })
    .openapi(contract.readEdition, async (context) => {
      const { id, number } = context.req.valid('param');
      const edition = await ProfileEditionModel.findOne({ where: { profileId: id, number } });
      if (edition === null) return problem(context, 404, `There is no edition ${number} of the profile "${id}".`);
      return context.json(whole(edition), 200);
    })
    .openapi(contract.releaseEdition, async (context) => {
      const { id } = context.req.valid('param');
      const { together, shared, leave, ...reasons } = context.req.valid('json');
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined) return problem(context, 428, 'Send If-Match with the entity tag of the draft that was looked at.');
      const by = whoReleases(
        (await site.current()).site,
        context,
        shared.map(({ part }) => part),
      );
      if (by === null) return notAllowed(context);
      const release = await service.release(
        {
          meant: id,
          profiles: [{ id, isOf: (revision) => matches(ifMatch, revision) }, ...besides(together, id)],
          shared: sharedBesides(shared),
        },
        reasons,
        by,
        leave,
      );
      if (release.is !== 'released') return refused(context, release);
      if (release.shared.some(({ part }) => part === 'site')) await deleteOutdated(sequelize, (await site.current()).site);
      context.header('ETag', etagOf(release.editions[0]!.number));
      return context.json(release.editions.map(told), 201);
    })
    .openapi(contract.takeBackTo, async (context) => {
      const { id, number } = context.req.valid('param');
      const { note } = context.req.valid('json');
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined) return problem(context, 428, 'Send If-Match with the number of the last edition.');
      const release = await service.takeBack(id, number, (last) => matches(ifMatch, last), note, await whoActs(context));
      if (release.is !== 'released') return refused(context, release);
      return context.json(told(release.editions[0]!), 201);
    })
    .openapi(contract.leftTexts, async (context) => {
      const { id } = context.req.valid('param');
      const { limit, after = '' } = context.req.valid('query');
      const [document = '', field = ''] = after.split('/');
      const rows = await leftTexts(sequelize, id, limit + 1, after === '' ? null : { document, field });
      return context.json(
        pageOf(context, rows, limit, (row) => `${row.document}/${row.field}`),
        200,
      );
    })
    .openapi(contract.followAgain, async (context) => {
      const { texts } = context.req.valid('json');
      const others = await follow(sequelize, context.req.valid('param').id, texts);
      return context.json({ following: texts.length - others, others }, 200);
    })
    .openapi(contract.allowInDraft, async (context) => {
      const { id } = context.req.valid('param');
      const { document, together, shared, key, texts } = context.req.valid('json');
      const allowing = await reaches.allow({ id, document: document as JsonObject | undefined, together, shared }, key, texts);
      return allowing.is === 'allowed' ? context.json(allowing.allowed, 200) : notLooked(context, allowing);
    })
    .openapi(contract.scheduleRelease, async (context) => {
      const { id } = context.req.valid('param');
      const { at, ...body } = context.req.valid('json');
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined) return problem(context, 428, 'Send If-Match with the entity tag of the draft that was looked at.');
      if (
        whoReleases(
          (await site.current()).site,
          context,
          body.shared.map(({ part }) => part),
        ) === null
      )
        return notAllowed(context);
      const made = await scheduled.schedule(
        { profile: id, part: null },
        new Date(at),
        body,
        (revision) => matches(ifMatch, revision),
        await whoActs(context),
      );
      return made.is === 'scheduled' ? context.json(toldScheduled(made.release), 201) : refused(context, made);
    })
    .openapi(contract.listScheduled, async (context) =>
      context.json((await scheduled.list({ profile: context.req.valid('param').id, part: null })).map(toldScheduled), 200),
    )
    .openapi(contract.callOffRelease, async (context) => {
      const { number } = context.req.valid('param');
      const part = (await scheduled.read(number))?.part;
      if (whoReleases((await site.current()).site, context, part ? [part] : []) === null) return notAllowed(context);
      const off = await scheduled.callOff(number);
      if (off === null) return problem(context, 404, `There is no planned release ${number}.`);
      if (!off.isOff) return problem(context, 409, 'This release does not wait any more.');
      return context.json(toldScheduled(off.release), 200);
    })
    .openapi(contract.reachOfProfile, async (context) => {
      const { id } = context.req.valid('param');
      const { document, together, shared } = context.req.valid('json');
      const { limit, after = '' } = context.req.valid('query');
      const looking = await reaches.look({ id, document: document as JsonObject | undefined, together, shared }, after, limit);
      if (looking.is !== 'looked') return notLooked(context, looking);
      if (looking.next !== null) linkNext(context, looking.next);
      return context.json(toldLooking(looking), 200);
    })
    .openapi(contract.reachOfText, async (context) => {
      const { id, document: documentId, field } = context.req.valid('param');
      const { document, together, shared } = context.req.valid('json');
      const looking = await reaches.lookAt({ id, document: document as JsonObject | undefined, together, shared }, documentId, field);
      if (looking.is !== 'looked') return notLooked(context, looking);
      return context.json(toldBoth(looking), 200);
    });
}
