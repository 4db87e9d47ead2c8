// Plain data as instances of the shapes that judge it. Nothing of a shape's own, and no key of the machine's, comes in from the data.
import { ValidateNested, type ValidationOptions } from 'class-validator';
import { isForbiddenKey } from './ids.ts';

type Shape = new () => object;

const nested = new WeakMap<object, Map<string | symbol, () => Shape>>();

/** A member, or each member of a list, that has a shape of its own. */
export function Nested(of: () => Shape, options: ValidationOptions = {}): PropertyDecorator {
  return (target, key) => {
    const members = nested.get(target) ?? new Map<string | symbol, () => Shape>();
    nested.set(target, members.set(key, of));
    ValidateNested(options)(target, key);
  };
}

/** The shape of a member, declared by the class or one it extends. */
function shapeOf(target: object | null, key: string): Shape | null {
  if (target === null) return null;
  const own = nested.get(target)?.get(key);
  return own ? own() : shapeOf(Object.getPrototypeOf(target) as object | null, key);
}

const isPlainObject = (value: unknown): value is object => typeof value === 'object' && value !== null && !Array.isArray(value);

/** An instance of a shape with the members of plain data. */
export function shaped<S extends Shape>(shape: S, plain: object): InstanceType<S> {
  const instance = new shape() as Record<string, unknown>;
  for (const [key, value] of Object.entries(plain)) {
    if (isForbiddenKey(key)) continue;
    const inner = shapeOf(shape.prototype as object, key);
    const into = (v: unknown): unknown => (inner && isPlainObject(v) ? shaped(inner, v) : v);
    // A list among the items would be judged as one more list of them, and an empty one would pass: it is no object at all.
    const item = (v: unknown): unknown => (Array.isArray(v) ? false : into(v));
    instance[key] = Array.isArray(value) && inner ? value.map(item) : into(value);
  }
  return instance as InstanceType<S>;
}
