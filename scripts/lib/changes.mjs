import { readFileSync } from 'node:fs';
import ts from 'typescript';

/**
 * Every small change that could be made to a TypeScript file by mistake: a condition turned round, a comparison shifted,
 * a call or an assignment left out, and their like. Words, patterns and tables are not changed: they say little about
 * whether tests look at what code does.
 *
 * @param file the path of the file
 * @returns `{ file, start, end, becomes, kind, line, was }`, with places counted in characters from the begin of the file
 */
export function changesOf(file) {
  const text = readFileSync(file, 'utf8');
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const changes = [];
  const change = (kind, node, becomes) => {
    const [start, end] = [node.getStart(source), node.getEnd()];
    const was = text.slice(start, end);
    changes.push({ file, start, end, becomes, kind, line: source.getLineAndCharacterOfPosition(start).line + 1, was });
  };
  const visit = (node) => {
    const condition = conditionOf(node);
    if (condition !== undefined) change('condition turned round', condition, `!(${condition.getText(source)})`);
    if (ts.isBinaryExpression(node)) {
      const { operatorToken, left, right } = node;
      const other = OTHERS.get(operatorToken.kind);
      if (other !== undefined) change(isLogical(operatorToken.kind) ? 'and and or swapped' : 'comparison shifted', operatorToken, other);
      if (operatorToken.kind === ts.SyntaxKind.QuestionQuestionToken) change('fallback left out', node, `(${left.getText(source)})!`);
      if (operatorToken.kind === ts.SyntaxKind.PlusToken && ts.isNumericLiteral(right)) change('sign turned', operatorToken, '-');
      if (operatorToken.kind === ts.SyntaxKind.MinusToken) change('sign turned', operatorToken, '+');
    }
    if (ts.isExpressionStatement(node)) {
      const { expression } = node;
      if (isCall(expression)) change('call left out', node, ';');
      else if (ts.isBinaryExpression(expression) && isAssignment(expression.operatorToken.kind)) change('assignment left out', node, ';');
      else if (ts.isPostfixUnaryExpression(expression)) change('step turned', node, stepped(expression.getText(source)));
    }
    if (node.kind === ts.SyntaxKind.TrueKeyword && isValue(node)) change('true and false swapped', node, 'false');
    if (node.kind === ts.SyntaxKind.FalseKeyword && isValue(node)) change('true and false swapped', node, 'true');
    if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      change('not left out', node, `(${node.operand.getText(source)})`);
    if (ts.isContinueStatement(node) || (ts.isReturnStatement(node) && node.expression === undefined))
      change('way out left out', node, ';');
    ts.forEachChild(node, visit);
  };
  visit(source);
  return changes;
}

/** What an operator becomes when it is mistaken for its neighbour. */
const OTHERS = new Map([
  [ts.SyntaxKind.LessThanToken, '<='],
  [ts.SyntaxKind.LessThanEqualsToken, '<'],
  [ts.SyntaxKind.GreaterThanToken, '>='],
  [ts.SyntaxKind.GreaterThanEqualsToken, '>'],
  [ts.SyntaxKind.EqualsEqualsEqualsToken, '!=='],
  [ts.SyntaxKind.ExclamationEqualsEqualsToken, '==='],
  [ts.SyntaxKind.AmpersandAmpersandToken, '||'],
  [ts.SyntaxKind.BarBarToken, '&&'],
]);
const isLogical = (kind) => kind === ts.SyntaxKind.AmpersandAmpersandToken || kind === ts.SyntaxKind.BarBarToken;
const isValue = ({ parent }) => !ts.isLiteralTypeNode(parent);

function conditionOf(node) {
  if (ts.isIfStatement(node) || ts.isWhileStatement(node) || ts.isDoStatement(node)) return node.expression;
  if (ts.isConditionalExpression(node) || ts.isForStatement(node)) return node.condition;
  return undefined;
}

function isCall(expression) {
  if (ts.isAwaitExpression(expression) || ts.isVoidExpression(expression)) return isCall(expression.expression);
  return ts.isCallExpression(expression) && expression.expression.kind !== ts.SyntaxKind.SuperKeyword;
}

const isAssignment = (kind) => kind >= ts.SyntaxKind.FirstAssignment && kind <= ts.SyntaxKind.LastAssignment;
const stepped = (text) => (text.endsWith('++') ? text.replace(/\+\+$/, '--') : text.replace(/--$/, '++')) + ';';
