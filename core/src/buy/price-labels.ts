export const CONDITIONS = { new: 'new', used: 'second hand', refurbished: 'refurbished' } as const;

export const PRICE_KINDS = {
  offer: 'Offered for',
  paid: 'Paid',
  shipping: 'Shipping',
  resale: 'Sells for',
} as const;
