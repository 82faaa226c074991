/** Fixed operators over a source text: each mutant is one small change that tests should notice. */
import ts from 'typescript';

export interface Mutant {
  readonly file: string;
  /** From 1. */
  readonly line: number;
  readonly start: number;
  readonly end: number;
  readonly was: string;
  readonly becomes: string;
  readonly operator: string;
}

const swaps = new Map<ts.SyntaxKind, string>([
  [ts.SyntaxKind.LessThanToken, '<='],
  [ts.SyntaxKind.LessThanEqualsToken, '<'],
  [ts.SyntaxKind.GreaterThanToken, '>='],
  [ts.SyntaxKind.GreaterThanEqualsToken, '>'],
  [ts.SyntaxKind.EqualsEqualsEqualsToken, '!=='],
  [ts.SyntaxKind.ExclamationEqualsEqualsToken, '==='],
  [ts.SyntaxKind.AmpersandAmpersandToken, '||'],
  [ts.SyntaxKind.BarBarToken, '&&'],
  [ts.SyntaxKind.PlusToken, '-'],
  [ts.SyntaxKind.MinusToken, '+'],
  [ts.SyntaxKind.AsteriskToken, '/'],
  [ts.SyntaxKind.SlashToken, '*'],
]);

/** A number of ours stands for "about so much": changed by half as much again; a small count by one. */
function otherNumber(text: string): string | undefined {
  const value = Number(text.replaceAll('_', ''));
  if (!Number.isFinite(value)) return undefined;
  return String(Number.isInteger(value) && Math.abs(value) <= 2 ? value + 1 : value * 1.5);
}

const isFallback = (node: ts.NumericLiteral): boolean =>
  ts.isBinaryExpression(node.parent) && node.parent.operatorToken.kind === ts.SyntaxKind.QuestionQuestionToken;

/** Every mutant of a file, in order of place. Types, imports and texts are left alone. */
export function mutantsOf(file: string, text: string): Mutant[] {
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const found: Mutant[] = [];
  const add = (node: ts.Node, becomes: string, operator: string): void => {
    const start = node.getStart(source);
    const line = source.getLineAndCharacterOfPosition(start).line + 1;
    found.push({ file, line, start, end: node.getEnd(), was: text.slice(start, node.getEnd()), becomes, operator });
  };
  const visit = (node: ts.Node): void => {
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isInterfaceDeclaration(node)) return;
    if (ts.isTypeAliasDeclaration(node)) return;
    if (ts.isBinaryExpression(node)) {
      const swapped = swaps.get(node.operatorToken.kind);
      const ofTexts = [node.left, node.right].some((side) => ts.isStringLiteralLike(side) || ts.isTemplateExpression(side));
      if (swapped !== undefined && !(ofTexts && ['-', '+'].includes(swapped))) add(node.operatorToken, swapped, 'operator');
    } else if (ts.isNumericLiteral(node) && isFallback(node)) {
      // Asked for by the type checker where nothing is ever missing.
    } else if (ts.isNumericLiteral(node)) {
      const other = otherNumber(node.text);
      if (other !== undefined) add(node, other, 'number');
    } else if (node.kind === ts.SyntaxKind.TrueKeyword) add(node, 'false', 'boolean');
    else if (node.kind === ts.SyntaxKind.FalseKeyword) add(node, 'true', 'boolean');
    else if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      add(node, node.operand.getText(source), 'negation');
    else if (ts.isIfStatement(node)) add(node.expression, `!(${node.expression.getText(source)})`, 'condition');
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found.sort((a, b) => a.start - b.start || a.end - b.end);
}
