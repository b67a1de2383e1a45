import { exitCode } from './exit-code.ts';
import { Misuse } from './misuse.ts';

const HELP = `Kerbe: plans, proves, runs and records sign carving.

  ./kerbe start                          start the shop and print its address
  ./kerbe test                           run every check
  ./kerbe bench [PART …]                 measure speed and accuracy; it ends with 1 where a figure falls short
  ./kerbe soak --minutes N               stop, hold, cut and kill at random moments for as long as you like
  ./kerbe make JOB.kerbe.json --out DIR  write a job's programs and report.json
  ./kerbe cut KIND ART.svg --bit BIT … --out FILE
                                         one cut of a whole drawing; docs/command-line.md lists the options
  ./kerbe time PROGRAM.nc                how long any RS-274 program takes
  ./kerbe view PROGRAM.nc --png FILE     draw any RS-274 program from above
  ./kerbe figures                        draw the figures and tables of docs/ anew
`;

const [command, ...args] = process.argv.slice(2);
try {
  if ((command === 'start' || command === 'figures') && args.length > 0)
    throw new Misuse(`./kerbe ${command} takes nothing more, and so not “${args.join(' ')}”.`);
  if (command === 'start') await (await import('./start.ts')).start();
  else if (command === 'test') await (await import('./test.ts')).test(args);
  else if (command === 'bench') await (await import('./bench.ts')).bench(args);
  else if (command === 'soak') await (await import('./soak.ts')).soak(args);
  else if (command === 'make') await (await import('./make.ts')).make(args);
  else if (command === 'cut') await (await import('./cut.ts')).cut(args);
  else if (command === 'time') (await import('./time.ts')).time(args);
  else if (command === 'view') (await import('./view.ts')).view(args);
  else if (command === 'figures') await (await import('./figures.ts')).figures();
  else if (command === undefined || command === 'help' || command === '--help') console.log(HELP);
  else throw new Misuse(`There is no command “${command}”. ./kerbe help lists them.`);
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(exitCode(error, command));
}
