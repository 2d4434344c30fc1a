import { allAround, hungMm, insetsOf, widened } from './hung.ts';
import { NOTHING_AROUND } from './surround.ts';

describe('how a print hangs', () => {
  it('has a mount of a sixth of its longer side, from 35 to 100 mm, and a frame of 20 mm', () => {
    expect(hungMm('wall', 420)).toEqual({ mountMm: 0, frameMm: 0 });
    expect(hungMm('mount', 420)).toEqual({ mountMm: 70, frameMm: 0 });
    expect(hungMm('framed', 90)).toEqual({ mountMm: 35, frameMm: 20 });
    expect(hungMm('framed', 1200)).toEqual({ mountMm: 100, frameMm: 20 });
  });

  it('takes the same width on every side, whatever the shape of the print', () => {
    // 300 × 200 mm with 50 mm around it: 400 × 300 mm in all.
    const whole = allAround(50, 300, 200);
    expect(whole).toEqual({ top: 0.25, bottom: 0.25, left: 1 / 6, right: 1 / 6 });
    expect((1 + whole.left + whole.right) * 300).toBeCloseTo(400);
    const { left, top } = insetsOf(whole, NOTHING_AROUND);
    expect([left, top]).toEqual([expect.closeTo(12.5), expect.closeTo(100 / 6)]);
    expect(insetsOf(whole, whole)).toEqual({ top: 0, right: 0, bottom: 0, left: 0 });
  });

  it('lies outside the paper that is bare around the picture', () => {
    const bare = { top: 0.1, right: 0.05, bottom: 0.2, left: 0.05 };
    const whole = widened(bare, allAround(30, 300, 200));
    const mount = insetsOf(whole, bare);
    // 30 mm of 300 × (1 + 0.1 + 0.2) + 60 mm, and of 200 × 1.3 + 60.
    expect(mount.left).toBeCloseTo((100 * 30) / (300 * 1.1 + 60));
    expect(mount.bottom).toBeCloseTo((100 * 30) / (200 * 1.3 + 60));
  });
});
