import { Pencil, X } from 'lucide-react';
import { useState } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import { HINTS, type Hint } from '@rakuen/core/picture/hints';
import type { Mark } from '@rakuen/core/picture/marks';
import { percent, sentenceCase } from '@rakuen/core/match/words';
import { formatNumber } from '@rakuen/core/measurement/show';
import { QuietButton } from '../parts/button.tsx';
import { Swatch } from '../parts/swatch.tsx';
import { noteOf, resolutionOf } from './picture-words.ts';
import { ToneCurve } from './tone-curve.tsx';

interface MarkProps {
  picture: PictureView;
  marks: readonly Mark[];
  chosen?: number;
  onChoose: (mark: number) => void;
  onRemove: (mark: number) => void;
  onRename: (mark: number, word: string) => void;
  onAdd: () => void;
  onAsFound: () => void;
}

/** Pencil notes in the margin: one to each mark, and what the picture is made of. */
export function MarginNotes({ onHints, ...at }: MarkProps & { onHints: (hints: Hint[]) => void }) {
  const { picture } = at;
  return (
    <div className="space-y-4">
      <Marks {...at} />
      <ToneCurve figures={picture.figures} />
      <MadeOf picture={picture} />
      <WhatItIsOf picture={picture} onHints={onHints} />
    </div>
  );
}

function Marks({ picture, marks, chosen, onChoose, onRemove, onRename, onAdd, onAsFound }: MarkProps) {
  const [naming, setNaming] = useState<number>();
  return (
    <section aria-label="Marks">
      <ol className="space-y-1">
        {marks.map((mark, i) => {
          const { name, figures } = noteOf(mark);
          return (
            <li
              key={`${mark.kind}${i}`}
              className={`group grid grid-cols-[20px_1fr_auto_auto] items-baseline gap-x-1.5 ${chosen === i ? 'bg-field' : ''}`}
              onMouseEnter={() => onChoose(i)}
            >
              <span className="font-serif font-semibold">{i + 1}</span>
              <span className="leading-snug">
                {naming === i ? (
                  <MarkWord
                    word={mark.word ?? ''}
                    number={i + 1}
                    onWord={(word) => {
                      if (word.trim() !== (mark.word ?? '')) onRename(i, word);
                      setNaming(undefined);
                    }}
                  />
                ) : (
                  <span className="font-serif">{name}</span>
                )}
                <span className="block text-[12.5px]">
                  <Swatch lab={mark.lab} /> {figures}
                </span>
              </span>
              <button
                type="button"
                aria-label={`Name mark ${i + 1}`}
                onClick={() => setNaming(i)}
                className="grid size-7 place-items-center self-start rounded-[3px] opacity-0 group-focus-within:opacity-100 group-hover:opacity-100"
              >
                <Pencil size={13} aria-hidden />
              </button>
              <button
                type="button"
                aria-label={`Remove mark ${i + 1}`}
                onClick={() => onRemove(i)}
                className="grid size-7 place-items-center self-start rounded-[3px] opacity-0 group-focus-within:opacity-100 group-hover:opacity-100"
              >
                <X size={14} aria-hidden />
              </button>
            </li>
          );
        })}
      </ol>
      <p className="-ml-1.5">
        <QuietButton onClick={onAdd}>Add a mark</QuietButton>
        {picture.marksByHand && <QuietButton onClick={onAsFound}>As found</QuietButton>}
      </p>
    </section>
  );
}

/** The printmaker’s own word for a mark; emptied, it is called by what lies there. */
function MarkWord({ word, number, onWord }: { word: string; number: number; onWord: (word: string) => void }) {
  return (
    <input
      aria-label={`Name of mark ${number}`}
      autoFocus
      defaultValue={word}
      maxLength={60}
      placeholder="by what lies there"
      className="min-h-7 w-full rounded-[3px] border border-edge bg-field px-1.5 font-serif"
      onBlur={(e) => onWord(e.target.value)}
      onKeyDown={(e) => {
        if (e.key === 'Enter') e.currentTarget.blur();
        if (e.key === 'Escape') onWord(word);
      }}
    />
  );
}

/** Shares, contrast, grain and tone, and how fine it is at its size. */
function MadeOf({ picture }: { picture: PictureView }) {
  const { figures: f } = picture;
  const { ppi, words } = resolutionOf(picture);
  return (
    <>
      <dl className="grid grid-cols-[1fr_auto] gap-x-3 text-[13px] [&_dd]:text-right">
        <dt>Near black, L* below 10</dt>
        <dd>{percent(f.nearBlackShare)}</dd>
        <dt>Near white, L* above 95</dt>
        <dd>{percent(f.nearWhiteShare)}</dd>
        <dt>Saturated, C* above 60</dt>
        <dd>{percent(f.saturatedShare)}</dd>
        <dt>Contrast, deviation of L*</dt>
        <dd>{formatNumber(f.contrastSdL, 1)}</dd>
        {f.structure && (
          <>
            <dt>Plain, busy</dt>
            <dd>
              {percent(f.structure.smoothShare)}, {percent(f.structure.busyShare)}
            </dd>
            <dt>Grain or noise, L*</dt>
            <dd>{formatNumber(f.structure.noiseL, 1)}</dd>
          </>
        )}
        {f.toning && (
          <>
            <dt>Toned, hue in darks and lights</dt>
            <dd>
              {formatNumber(f.toning.shadows.hueDeg, 0)}°, {formatNumber(f.toning.lights.hueDeg, 0)}°
            </dd>
          </>
        )}
        <dt>At its size</dt>
        <dd>{formatNumber(ppi, 0)} ppi</dd>
      </dl>
      <p className="text-[12.5px] text-quiet">{sentenceCase(words)}.</p>
    </>
  );
}

function WhatItIsOf({ picture, onHints }: { picture: PictureView; onHints: (hints: Hint[]) => void }) {
  const { hints } = picture;
  return (
    <fieldset>
      <legend className="font-serif">
        What it is of{' '}
        <span className="text-[12.5px] text-quiet">
          {picture.hintsByHand ? 'as you said' : 'guessed; say what is so'}
        </span>
      </legend>
      <div className="mt-1 flex flex-wrap gap-1">
        {HINTS.map((hint) => {
          const on = hints.includes(hint);
          return (
            <button
              key={hint}
              type="button"
              aria-pressed={on}
              onClick={() => onHints(on ? hints.filter((h) => h !== hint) : [...hints, hint])}
              className={`min-h-7 rounded-[3px] border px-1.5 text-[12.5px] ${on ? `border-ink bg-ink text-ground ${picture.hintsByHand ? '' : 'italic'}` : 'border-line text-ink hover:border-edge'}`}
            >
              {hint}
            </button>
          );
        })}
      </div>
    </fieldset>
  );
}
