/** What may stand in a link without being cut by it, or cutting (WHATWG HTML, 4.5.1: its content is that of its parent). */
export const inLines =
  /^(a|abbr|acronym|b|bdi|bdo|big|br|cite|code|data|del|dfn|em|font|i|img|ins|kbd|mark|q|rp|rt|ruby|s|samp|small|span|strike|strong|sub|sup|svg|time|tt|u|var|wbr)$/;
