import { Transform, Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
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
  ValidateBy,
  ValidateNested,
} from 'class-validator';

/** Several property decorators as one. */
const all =
  (...decorators: PropertyDecorator[]): PropertyDecorator =>
  (target, key) =>
    decorators.forEach((d) => d(target, key));

/** Control characters, and those that turn the direction of what follows: names with them are not what they look like. */
// eslint-disable-next-line no-control-regex -- they are what is looked for
const UNSEEN = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\u200e\u200f\u202a-\u202e\u2066-\u2069\ufeff]/u;
const LINE_ENDS = /[\t\n\r]/;
const Seen = () =>
  NotMatching(UNSEEN, '$property must not hold control characters or signs that turn the direction of text');

function NotMatching(pattern: RegExp, message: string): PropertyDecorator {
  return ValidateBy(
    {
      name: 'notMatching',
      constraints: [pattern],
      validator: { validate: (v) => typeof v !== 'string' || !pattern.test(v) },
    },
    { message },
  );
}

/** Text that must say something, in one line. */
export const Text = (max = 200) =>
  all(
    IsString(),
    Matches(/\S/, { message: '$property must not be empty' }),
    MinLength(1),
    MaxLength(max),
    Seen(),
    NotMatching(LINE_ENDS, '$property must be one line'),
  );
/** Text of several lines that must say something. */
export const Lines = (max = 2000) =>
  all(IsString(), Matches(/\S/, { message: '$property must not be empty' }), MinLength(1), MaxLength(max), Seen());
/** Text that may be empty. */
export const FreeText = (max = 4000) => all(IsString(), MaxLength(max), Seen());
export const Id = () => all(IsUUID());
export const Ids = (max: number) => all(IsArray(), ArrayMaxSize(max), IsUUID(undefined, { each: true }));
/** Ids in an address, with commas between. */
export const CommaIds = (max: number) =>
  all(
    Transform(({ value }) => (typeof value === 'string' ? value.split(',') : value) as string[]),
    IsArray(),
    ArrayMinSize(1),
    ArrayMaxSize(max),
    IsUUID(undefined, { each: true }),
  );
export const Num = (min = -1e9, max = 1e9) =>
  all(IsNumber({ allowNaN: false, allowInfinity: false }), Min(min), Max(max));
export const Int = (min = 0, max = 1e12) => all(IsInt(), Min(min), Max(max));
/** A number in an address, where it comes as text. */
export const NumberText = (min: number, max: number) =>
  all(
    Type(() => Number),
    IsNumber({ allowNaN: false, allowInfinity: false }),
    Min(min),
    Max(max),
  );
/** A whole number in an address. */
export const QueryInt = (min = 0, max = 1e12) =>
  all(
    Type(() => Number),
    IsInt(),
    Min(min),
    Max(max),
  );
export const Yes = () => all(IsBoolean());
export const OneOf = (values: readonly (string | number)[]) => all(IsIn(values as string[]));
/** Weights of leanings: numbers by key, 0–10. */
export const Weights = () =>
  all(
    IsObject(),
    ValidateBy(
      {
        name: 'weights',
        validator: {
          validate: (v) =>
            typeof v === 'object' &&
            v !== null &&
            Object.keys(v).length <= 60 &&
            Object.values(v).every((w) => typeof w === 'number' && w >= 0 && w <= 10),
        },
      },
      { message: '$property must hold numbers from 0 to 10, by the key of a leaning' },
    ),
  );
/** Some words of a list, none twice. */
export const Several = (values: readonly string[]) =>
  all(IsArray(), ArrayMaxSize(values.length), ArrayUnique(), IsIn(values as string[], { each: true }));
/** A day to come or gone, as 2026-03-02. */
export const Day = () => all(IsISO8601({ strict: true }), Matches(/^\d{4}-\d{2}-\d{2}$/));
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
const EARLIEST = Date.parse('1980-01-01T00:00:00Z');
const A_DAY_MS = 24 * 3_600_000;
/** A day, with or without its hour; no week and no day of the year. */
const DATE = /^\d{4}-\d{2}-\d{2}(T\d{2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:\d{2})?)?$/;

/** A date that is one, from 1980 to tomorrow: nothing was printed before, and nothing can have been printed later. */
export const When = () =>
  all(
    IsISO8601({ strict: true }),
    ValidateBy(
      {
        name: 'plausibleDate',
        validator: {
          validate: (v) =>
            typeof v === 'string' &&
            DATE.test(v) &&
            Date.parse(v) >= EARLIEST &&
            Date.parse(v) <= Date.now() + A_DAY_MS,
        },
      },
      { message: '$property must be a day from 1980 to tomorrow, as 2026-03-02' },
    ),
  );
/** Currencies of ISO 4217. */
export const Currency = () =>
  all(IsIn(Intl.supportedValuesOf('currency'), { message: '$property must be a currency of ISO 4217, as EUR' }));
/** An address by which a browser reaches a server: its origin alone, by http or https. */
export const Address = () =>
  all(
    IsString(),
    MaxLength(200),
    Matches(/^https?:\/\/[^\s/?#@]+$/i, {
      message: '$property must be an address such as http://192.168.1.20:4173, without a path',
    }),
  );
export const Maybe = () => IsOptional();
export const Words = (most = 1000) => all(IsArray(), ArrayMaxSize(most), IsString({ each: true }));
export const Plain = () => IsObject();
export const Rows = () => IsArray();
export const Part = (of: () => new () => object) => all(ValidateNested(), Type(of), IsObject());
export const Parts = (of: () => new () => object, most = 10_000) =>
  all(IsArray(), ArrayMaxSize(most), IsObject({ each: true }), ValidateNested({ each: true }), Type(of));
