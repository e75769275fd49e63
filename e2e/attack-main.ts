import { attack, linesOf } from './attack';

const [minutes, seed] = process.argv.slice(2).map(Number) as [number, number];
const say = (line: string): void => void process.stdout.write(`${line}\n`);

/** So much of each is done in a minute, about. */
const [REQUESTS, RACES, KILLS, COMMANDS] = [1200, 6, 2, 12];

void (async () => {
  say(`seed ${seed}`);
  const figures = await attack({
    seed,
    requests: REQUESTS * minutes,
    races: RACES * minutes,
    kills: KILLS * minutes,
    commands: COMMANDS * minutes,
    isTimed: true,
    every: 1,
    calmS: 300,
    say,
  });
  for (const line of linesOf(figures)) say(line);
  const wrong = [
    figures.requests.failed,
    ...[figures.races, figures.kills, figures.lost, figures.styles, figures.files, figures.commands].map(({ wrong: of }) => of),
  ].some(({ length }) => length > 0);
  process.exit(wrong || figures.voice.unanswered > 0 ? 1 : 0);
})();
