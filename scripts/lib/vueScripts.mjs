/**
 * The scripts of Vue files for rules that ask for types. ESLint hands over one file after the other, and to the project service each is a change of the
 * program, after which all types are worked out again: a second a file. Here all of them are in one program, made at the first.
 */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import tseslint from 'typescript-eslint';
import vueParser from 'vue-eslint-parser';

const plain = (options) => ({ ...options, project: undefined, projectService: undefined });
const asksTypes = ({ projectService }) => projectService !== undefined;

/** What the Vue parser takes for the script of a file. */
function scriptOf(file) {
  let script = '';
  vueParser.parseForESLint(readFileSync(file, 'utf8'), {
    filePath: file,
    projectService: true,
    parser: {
      parseForESLint(code, options) {
        if (asksTypes(options)) script = code;
        return tseslint.parser.parseForESLint(code, plain(options));
      },
    },
  });
  return script;
}

/** A name beside the file, so that what it imports is found, and which nothing imports. */
const besides = (file) => `${file}.script.ts`;

function programOf(configFile) {
  const config = ts.getParsedCommandLineOfConfigFile(
    configFile,
    {},
    {
      ...ts.sys,
      onUnRecoverableConfigFileDiagnostic: ({ messageText }) => {
        throw new Error(ts.flattenDiagnosticMessageText(messageText, '\n'));
      },
    },
    undefined,
    undefined,
    [{ extension: 'vue', isMixedContent: true, scriptKind: ts.ScriptKind.Deferred }],
  );
  const files = config.fileNames.filter((name) => name.endsWith('.vue'));
  const scripts = new Map(files.map((file) => [besides(file), scriptOf(file)]));
  const host = ts.createCompilerHost(config.options);
  const { readFile, fileExists } = host;
  host.readFile = (name) => scripts.get(name) ?? readFile(name);
  host.fileExists = (name) => scripts.has(name) || fileExists(name);
  const rootNames = [...config.fileNames.filter((name) => !name.endsWith('.vue')), ...scripts.keys()];
  const program = ts.createProgram({ rootNames, options: config.options, host });
  return { program, scripts };
}

/** A parser for the scripts of Vue files. One that is not as it stands on the disk, in an editor, is parsed without types. */
export function vueScripts(configFile) {
  let made;
  return {
    parseForESLint(code, options) {
      if (!asksTypes(options)) return tseslint.parser.parseForESLint(code, plain(options));
      made ??= programOf(configFile);
      const filePath = besides(path.resolve(options.filePath));
      const known = made.scripts.get(filePath) === code;
      return tseslint.parser.parseForESLint(code, { ...plain(options), ...(known ? { filePath, programs: [made.program] } : {}) });
    },
  };
}
