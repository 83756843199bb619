/**
 * Currencies by the number of decimals of their minor unit. Source: ISO 4217:2015, list one (funds codes and precious
 * metals left out), checked against the package currency-codes.
 */
const BY_DECIMALS: readonly (readonly [decimals: number, codes: string])[] = [
  [0, 'BIF CLP DJF GNF ISK JPY KMF KRW PYG RWF UGX UYI VND VUV XAF XOF XPF'],
  [
    2,
    'AED AFN ALL AMD AOA ARS AUD AWG AZN BAM BBD BDT BMD BND BOB BRL BSD BTN BWP BYN BZD CAD CDF CHF CNY COP CRC CUP CVE CZK DKK DOP DZD EGP ERN ETB EUR FJD FKP GBP GEL GHS GIP GMD GTQ GYD HKD HNL HTG HUF IDR ILS INR IRR JMD KES KGS KHR KPW KYD KZT LAK LBP LKR LRD LSL MAD MDL MGA MKD MMK MNT MOP MRU MUR MVR MWK MXN MYR MZN NAD NGN NIO NOK NPR NZD PAB PEN PGK PHP PKR PLN QAR RON RSD RUB SAR SBD SCR SDG SEK SGD SHP SLE SOS SRD SSP STN SVC SYP SZL THB TJS TMT TOP TRY TTD TWD TZS UAH USD UYU UZS VED VES WST XCD YER ZAR ZMW ZWG',
  ],
  [3, 'BHD IQD JOD KWD LYD OMR TND'],
  [4, 'CLF UYW'],
];

const DECIMALS: ReadonlyMap<string, number> = new Map(
  BY_DECIMALS.flatMap(([decimals, codes]) => codes.split(' ').map((code) => [code, decimals] as const)),
);

export const CURRENCIES: readonly string[] = [...DECIMALS.keys()].sort();

export const isCurrency = (code: string): boolean => DECIMALS.has(code);

/**
 * Decimals of a currency's minor unit.
 * @throws RangeError for a code that is not in ISO 4217
 * @example decimalsOf('GBP') // 2
 */
export function decimalsOf(code: string): number {
  const known = DECIMALS.get(code);
  if (known === undefined) throw new RangeError(`“${code}” isn’t an ISO 4217 currency. Type it like EUR.`);
  return known;
}
