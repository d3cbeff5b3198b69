/** A share in whole percent, as sentences of the core say it. @example percent(0.314) is `31 %` */
export const percent = (share: number): string => `${Math.round(share * 100)} %`;
