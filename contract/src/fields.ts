import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsISO8601,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';

/** Several property decorators as one. */
const all =
  (...decorators: PropertyDecorator[]): PropertyDecorator =>
  (target, key) =>
    decorators.forEach((d) => d(target, key));

/** Text that must say something. */
export const Text = (max = 200) =>
  all(IsString(), Matches(/\S/, { message: '$property must not be empty' }), MinLength(1), MaxLength(max));
/** Text that may be empty. */
export const FreeText = (max = 4000) => all(IsString(), MaxLength(max));
export const Id = () => all(IsUUID());
export const Ids = (max: number) => all(IsArray(), ArrayMaxSize(max), IsUUID(undefined, { each: true }));
export const Num = (min = -1e9, max = 1e9) =>
  all(IsNumber({ allowNaN: false, allowInfinity: false }), Min(min), Max(max));
export const Int = (min = 0, max = 1e12) => all(IsInt(), Min(min), Max(max));
/** The same in an address, where it comes as text. */
export const QueryInt = (min = 0, max = 1e12) =>
  all(
    Type(() => Number),
    IsInt(),
    Min(min),
    Max(max),
  );
export const Yes = () => all(IsBoolean());
export const OneOf = (values: readonly (string | number)[]) => all(IsIn(values as string[]));
/** A list of numbers, at least `fewest` of them. */
export const Numbers = (min: number, max: number, fewest = 1, most = 100) =>
  all(
    IsArray(),
    ArrayMinSize(fewest),
    ArrayMaxSize(most),
    IsNumber({ allowNaN: false, allowInfinity: false }, { each: true }),
    Min(min, { each: true }),
    Max(max, { each: true }),
  );
export const When = () => all(IsISO8601({ strict: true }));
export const Maybe = () => IsOptional();
export const Words = (most = 1000) => all(IsArray(), ArrayMaxSize(most), IsString({ each: true }));
export const Plain = () => IsObject();
export const Rows = () => IsArray();
export const Part = (of: () => new () => object) => all(ValidateNested(), Type(of), IsObject());
export const Parts = (of: () => new () => object, most = 10_000) =>
  all(IsArray(), ArrayMaxSize(most), ValidateNested({ each: true }), Type(of));
