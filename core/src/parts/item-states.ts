export const HOW = { own: 'ours', borrowed: 'borrowed', gone: 'gone' } as const;

export const ITEM_CONDITIONS = {
  new: 'new',
  used: 'used',
  worn: 'worn',
  faulty: 'faulty',
} as const;
