import { useState } from 'react';
import { Link } from 'react-router';
import type { NumberView } from '@rakuen/contract/editions';
import { WHEREABOUTS } from '@rakuen/core/print/whereabouts';
import { lastOf, whereWords } from '../clients/move-words.ts';
import { MoveForm } from '../clients/move-form.tsx';
import { History } from '../clients/whereabouts.tsx';
import { QuietButton } from '../parts/button.tsx';
import { Download } from '../parts/download.tsx';

/** A number that was given, and where its print is and was. */
export function Numbered({ number: n }: { number: NumberView }) {
  const [open, setOpen] = useState(false);
  const last = lastOf(n.moves);
  return (
    <li className="border-b border-line py-1.5">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <b className="w-16 tabular-nums">{n.written}</b>
        <span className="min-w-0 flex-1 break-words">
          {last ? whereWords(last) : WHEREABOUTS.studio.name}
          {last?.note && <span className="text-quiet"> {last.note}</span>}
          {n.batch && <span className="text-[13px] text-quiet"> box {n.batch}</span>}
        </span>
        {n.printId && (
          <Link className="text-[13px] underline" to={`/prints/${n.printId}`}>
            the print
          </Link>
        )}
        <Download
          className="text-[13px] underline"
          href={`/api/numbers/${n.id}/certificate.pdf`}
          label={`Certificate of ${n.written}`}
        >
          certificate
        </Download>
        {last?.to !== 'destroyed' && (
          <QuietButton onClick={() => setOpen(!open)} aria-expanded={open} aria-label={`Move ${n.written}`}>
            Move
          </QuietButton>
        )}
      </div>
      {open && (
        <MoveForm
          of={{ numberId: n.id, fromId: last?.id, at: last?.to ?? 'studio', copies: 1, called: n.written }}
          onDone={() => setOpen(false)}
        />
      )}
      <History moves={n.moves} />
    </li>
  );
}
