import { useRef, type ReactNode } from 'react';
import { QuietButton } from './button.tsx';

const INHERITED = ['fill', 'stroke', 'font-family', 'font-size', 'font-weight', 'opacity'] as const;

/** A drawing on its own: theme colours written out, so that it looks the same anywhere. */
function standalone(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const { width, height } = svg.getBoundingClientRect();
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(Math.round(width)));
  copy.setAttribute('height', String(Math.round(height)));
  if (!copy.getAttribute('viewBox')) copy.setAttribute('viewBox', `0 0 ${Math.round(width)} ${Math.round(height)}`);
  const [from, to] = [svg.querySelectorAll('*'), copy.querySelectorAll('*')];
  from.forEach((element, i) => {
    const style = getComputedStyle(element);
    for (const name of INHERITED)
      if (to[i].hasAttribute(name) || element.tagName === 'text')
        to[i].setAttribute(name, style.getPropertyValue(name));
    to[i].removeAttribute('class');
    to[i].removeAttribute('style');
  });
  copy.removeAttribute('class');
  copy.removeAttribute('style');
  return new XMLSerializer().serializeToString(copy);
}

/** A drawing with a way to take it as a file. */
export function TakeSvg({ name, children }: { name: string; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  const take = () => {
    const svg = box.current?.querySelector<SVGSVGElement>('svg.recharts-surface, svg[role=img]');
    if (!svg) return;
    const address = URL.createObjectURL(new Blob([standalone(svg)], { type: 'image/svg+xml' }));
    const link = document.createElement('a');
    link.href = address;
    link.download = `${name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '-')}.svg`;
    link.click();
    URL.revokeObjectURL(address);
  };
  return (
    <div ref={box}>
      {children}
      <QuietButton className="-ml-1.5 text-[12.5px]" aria-label={`${name} as SVG`} onClick={take}>
        as SVG
      </QuietButton>
    </div>
  );
}
