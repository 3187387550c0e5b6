import type { Hand } from '../../api/client';
import type { Quantity } from '../../units/units';

interface Says {
  say: (value: number, quantity: Quantity, digits?: number) => string;
}

/** The step for somebody whose eyes are on the work: what, on which machine, how fast, how hard, and when it is done. */
export function stepAloud(hand: Hand, machine: string, shown: Says): string {
  const { plan } = hand;
  const speed = plan.rpm ? `${Math.floor(plan.rpm)} revolutions a minute` : '';
  const stay = plan.longest_stay_s ? `At most ${shown.say(plan.longest_stay_s, 'time')} on one spot` : '';
  return [
    `${hand.face}, step ${hand.step} of ${hand.of}: ${plan.label}`,
    plan.zone
      ? `On ${plan.zone.spots.join(' and ')}, ${plan.zone.margins_mm.map((margin) => shown.say(margin, 'length')).join(' and ')} around`
      : hand.places
        ? 'Over everything'
        : '',
    [machine, speed].filter(Boolean).join(', '),
    `Press ${plan.pressure === 'light' ? 'lightly' : 'with medium pressure'}`,
    stay,
    `Done when: ${plan.check}`,
  ]
    .filter(Boolean)
    .map((words) => (/[.!?]$/.test(words) ? words : `${words}.`))
    .join(' ');
}
