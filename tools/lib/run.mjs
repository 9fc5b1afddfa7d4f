import { spawn } from 'node:child_process';
import { SetupError } from './say.mjs';

/** Runs a program to its end, its output shown; a SetupError when it fails, in words of one's own if there are. */
export function run(command, args, options = {}, words = null) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: 'inherit', ...options });
    child.on('error', (error) =>
      reject(new SetupError(`${command} could not be started (${error.code ?? error.message}).`)),
    );
    child.on('exit', (code, signal) =>
      code === 0
        ? resolve()
        : reject(
            new SetupError(`${words ?? `${command} ${args.join(' ')} failed`} (${signal ?? `exit code ${code}`}).`),
          ),
    );
  });
}

/** Runs a program and returns what it printed and its exit code. */
export function capture(command, args, options = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'], ...options });
    let output = '';
    child.stdout.on('data', (d) => {
      output += d;
    });
    child.stderr.on('data', (d) => {
      output += d;
    });
    child.on('error', (error) => resolve({ code: -1, output: String(error.message) }));
    // Not at its exit: what it printed may still be on its way then.
    child.on('close', (code) => resolve({ code, output }));
  });
}
