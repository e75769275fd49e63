import { contract } from '@typikon/api';
import { Op, type Sequelize } from 'sequelize';
import { SharedEditionModel } from '../db/models';
import { problem } from '../problem';
import { etagOf, matches } from '../routes/entity-tags';
import { linkNext, pageOf } from '../routes/pages';
import { router } from '../routes/shared';
import { deleteOutdated, type SiteService } from '../site/service';
import { besides, notAllowed, notLooked, refused, sharedBesides, toldBoth, toldLooking, toldScheduled, whoReleases } from './answers';
import { ReachService } from './reach';
import { EditionService } from './service';
import { partName, PARTS } from './parts';
import { ScheduledReleases } from './scheduled';
import { lastShared, sharedAt } from './shared';
import { resetShared, takeBackShared } from './shared-service';

const told = ({ part, number, releasedAt, releasedBy, note, fromRevision, backTo, reach, accepted }: SharedEditionModel) => ({
  part,
  number,
  releasedAt: releasedAt.toISOString(),
  releasedBy,
  note,
  fromRevision,
  backTo,
  reach,
  accepted,
});
const whole = (edition: SharedEditionModel) => ({ ...told(edition), document: edition.document });

/** Editions of what the whole site has once, and what a release of it would do to what is stored. */
export function sharedEditions(sequelize: Sequelize, site: SiteService, committing: () => void) {
  const service = new EditionService(sequelize, committing);
  const reaches = new ReachService(sequelize);
  const scheduled = new ScheduledReleases(sequelize, committing);
  return router()
    .openapi(contract.currentShared, async (context) => {
      const last = await Promise.all(PARTS.map((part) => lastShared(part)));
      return context.json(
        last.flatMap((edition) => (edition === null ? [] : [whole(edition)])),
        200,
      );
    })
    .openapi(contract.listShared, async (context) => {
      const { part } = context.req.valid('param');
      const { limit, after } = context.req.valid('query');
      const rows = await SharedEditionModel.findAll({
        where: { part, ...(after === undefined ? {} : { number: { [Op.lt]: Number(after) || 0 } }) },
        attributes: { exclude: ['document'] },
        order: [['number', 'DESC']],
        limit: limit + 1,
      });
      return context.json(pageOf(context, rows, limit, ({ number }) => String(number)).map(told), 200);
    })
    .openapi(contract.readShared, async (context) => {
      const { part, number } = context.req.valid('param');
      const edition = await sharedAt(part, number);
      return edition === null
        ? problem(context, 404, `There is no edition ${number} of ${partName(part)}.`)
        : context.json(whole(edition), 200);
    })
    .openapi(contract.releaseShared, async (context) => {
      const { part } = context.req.valid('param');
      const { together, shared, ...reasons } = context.req.valid('json');
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined) return problem(context, 428, 'Send If-Match with the entity tag of the draft that was looked at.');
      const others = shared.filter((other) => other.part !== part);
      const by = whoReleases((await site.current()).site, context, [part, ...others.map((other) => other.part)]);
      if (by === null) return notAllowed(context);
      const release = await service.release(
        {
          meant: part,
          profiles: besides(together),
          shared: [{ part, isOf: (revision) => matches(ifMatch, revision) }, ...sharedBesides(others)],
        },
        reasons,
        by,
      );
      if (release.is !== 'released') return refused(context, release);
      if (release.shared.some((edition) => edition.part === 'site')) await deleteOutdated(sequelize, (await site.current()).site);
      const edition = release.shared.find((one) => one.part === part)!;
      context.header('ETag', etagOf(edition.number));
      return context.json(told(edition), 201);
    })
    .openapi(contract.scheduleShared, async (context) => {
      const { part } = context.req.valid('param');
      const { at, ...body } = context.req.valid('json');
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined) return problem(context, 428, 'Send If-Match with the entity tag of the draft that was looked at.');
      const by = whoReleases((await site.current()).site, context, [part, ...body.shared.map((other) => other.part)]);
      if (by === null) return notAllowed(context);
      const isOf = (revision: number): boolean => matches(ifMatch, revision);
      const made = await scheduled.schedule({ profile: '', part }, new Date(at), { ...body, leave: [] }, isOf, by);
      return made.is === 'scheduled' ? context.json(toldScheduled(made.release), 201) : refused(context, made);
    })
    .openapi(contract.listScheduledShared, async (context) =>
      context.json((await scheduled.list({ profile: '', part: context.req.valid('param').part })).map(toldScheduled), 200),
    )
    .openapi(contract.resetShared, async (context) => {
      const { part } = context.req.valid('param');
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined) return problem(context, 428, 'Send If-Match with the entity tag of the draft.');
      const by = whoReleases((await site.current()).site, context, [part]);
      if (by === null) return notAllowed(context);
      const reset = await resetShared(sequelize, committing, { part, isOf: (revision) => matches(ifMatch, revision), by });
      return reset.is === 'released' ? context.json({ revision: reset.revision }, 200) : refused(context, reset);
    })
    .openapi(contract.takeBackShared, async (context) => {
      const { part, number } = context.req.valid('param');
      const { note } = context.req.valid('json');
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined) return problem(context, 428, 'Send If-Match with the number of the last edition.');
      const by = whoReleases((await site.current()).site, context, [part]);
      if (by === null) return notAllowed(context);
      const isLast = (last: number): boolean => matches(ifMatch, last);
      const release = await takeBackShared(sequelize, committing, { part, number, isLast, note, by });
      return release.is === 'released' ? context.json(told(release.edition), 201) : refused(context, release);
    })
    .openapi(contract.reachOfShared, async (context) => {
      const { part } = context.req.valid('param');
      const { together } = context.req.valid('json');
      const { limit, after = '' } = context.req.valid('query');
      const looking = await reaches.look({ id: null, together, shared: [part] }, after, limit);
      if (looking.is !== 'looked') return notLooked(context, looking);
      if (looking.next !== null) linkNext(context, looking.next);
      return context.json(toldLooking(looking), 200);
    })
    .openapi(contract.reachOfSharedText, async (context) => {
      const { part, document, field } = context.req.valid('param');
      const { together } = context.req.valid('json');
      const looking = await reaches.lookAt({ id: null, together, shared: [part] }, document, field);
      return looking.is === 'looked' ? context.json(toldBoth(looking), 200) : notLooked(context, looking);
    });
}
