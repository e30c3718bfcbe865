// The JSON Schema (draft 2020-12) of a TypeScript type, as the compiler itself understands it: packages that read the syntax
// do not follow types that are inferred from values.
import ts from 'typescript';

/**
 * @param {string} file with an exported interface
 * @param {string} name of the interface
 * @returns {{ properties: Record<string, object>, schemas: Record<string, object> }} a schema for each of its properties,
 * and those that they refer to as `#/components/schemas/Name`
 */
export function schemasOf(file, name, compilerOptions) {
  const program = ts.createProgram([file], { ...compilerOptions, noEmit: true });
  const checker = program.getTypeChecker();
  const source = program.getSourceFile(file);
  const exported = checker.getExportsOfModule(checker.getSymbolAtLocation(source));
  const root = checker.getDeclaredTypeOfSymbol(exported.find((one) => one.name === name));
  const writer = new Writer(checker, source);
  const properties = Object.fromEntries(
    checker.getPropertiesOfType(root).map((one) => [one.name, writer.property(one)]),
  );
  return { properties, schemas: Object.fromEntries([...writer.schemas].sort(byName)) };
}

const byName = ([a], [b]) => (a < b ? -1 : 1);
const isFlag = (type, flag) => (type.flags & flag) !== 0;

class Writer {
  schemas = new Map();

  constructor(checker, source) {
    this.checker = checker;
    this.source = source;
  }

  property(symbol) {
    const type = this.checker.getTypeOfSymbolAtLocation(symbol, this.source);
    const about = ts.displayPartsToString(symbol.getDocumentationComment(this.checker));
    const schema = this.of(type);
    return about ? { description: about, ...schema } : schema;
  }

  of(type) {
    const name = nameOf(type);
    if (name === undefined || !isFlag(type, ts.TypeFlags.Object | ts.TypeFlags.Union))
      return this.inner(type);
    if (!this.schemas.has(name)) {
      this.schemas.set(name, {}); // it may refer to itself
      this.schemas.set(name, this.inner(type));
    }
    return { $ref: `#/components/schemas/${name}` };
  }

  inner(type) {
    if (type.isStringLiteral() || type.isNumberLiteral()) return { const: type.value };
    if (isFlag(type, ts.TypeFlags.BooleanLiteral)) return { const: type.intrinsicName === 'true' };
    if (isFlag(type, ts.TypeFlags.StringLike)) return { type: 'string' };
    if (isFlag(type, ts.TypeFlags.NumberLike)) return { type: 'number' };
    if (isFlag(type, ts.TypeFlags.BooleanLike) && !type.isUnion()) return { type: 'boolean' };
    if (isFlag(type, ts.TypeFlags.Null)) return { type: 'null' };
    if (isFlag(type, ts.TypeFlags.Unknown | ts.TypeFlags.Any)) return {};
    if (type.isUnion()) return this.union(type.types);
    const branded =
      type.isIntersection() && type.types.find((one) => isFlag(one, ts.TypeFlags.Primitive));
    return branded ? this.inner(branded) : this.object(type);
  }

  union(types) {
    const others = types.filter(
      (one) => !isFlag(one, ts.TypeFlags.BooleanLiteral | ts.TypeFlags.Undefined),
    );
    const flags = types.filter((one) => isFlag(one, ts.TypeFlags.BooleanLiteral));
    const words = others.filter((one) => one.isStringLiteral() || one.isNumberLiteral());
    const rest = others.filter((one) => !words.includes(one));
    const schemas = [
      ...(flags.length === 2 ? [{ type: 'boolean' }] : flags.map((one) => this.inner(one))),
      ...(words.length > 1
        ? [{ enum: words.map(({ value }) => value).sort() }]
        : words.map((one) => this.inner(one))),
      ...rest.map((one) => this.of(one)),
    ];
    return schemas.length === 1 ? schemas[0] : { anyOf: schemas };
  }

  object(type) {
    const { checker } = this;
    if (checker.isTupleType(type)) {
      const items = checker.getTypeArguments(type).map((one) => this.of(one));
      return { type: 'array', prefixItems: items, minItems: items.length, maxItems: items.length };
    }
    if (checker.isArrayType(type))
      return { type: 'array', items: this.of(checker.getTypeArguments(type)[0]) };
    const properties = checker.getPropertiesOfType(type);
    const index = type.getStringIndexType();
    // What is undefined is not written, in JSON.
    const required = properties.filter(
      (one) =>
        !(one.flags & ts.SymbolFlags.Optional) &&
        !mayBeUndefined(checker.getTypeOfSymbolAtLocation(one, this.source)),
    );
    return {
      type: 'object',
      ...(properties.length > 0 && {
        properties: Object.fromEntries(properties.map((one) => [one.name, this.property(one)])),
      }),
      ...(required.length > 0 && { required: required.map((one) => one.name) }),
      ...(index && { additionalProperties: this.of(index) }),
    };
  }
}

const mayBeUndefined = (type) =>
  type.isUnion() && type.types.some((one) => isFlag(one, ts.TypeFlags.Undefined));

/** What somebody named it, where it is not one of many of that name. */
function nameOf(type) {
  const alias = type.aliasSymbol;
  if (alias) return type.aliasTypeArguments ? undefined : alias.name;
  const { symbol } = type;
  const isNamed = symbol && (symbol.flags & ts.SymbolFlags.Interface) !== 0;
  return isNamed &&
    !type.typeArguments?.length &&
    symbol.name !== 'Array' &&
    symbol.name !== 'ReadonlyArray'
    ? symbol.name
    : undefined;
}
