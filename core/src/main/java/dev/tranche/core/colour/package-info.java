/**
 * Colour as a practitioner judges it: sRGB at the edges, linear light inside, CIE L*a*b* for telling two
 * colours apart and Kubelka–Munk for what two plastics make when they melt together. Sources: IEC 61966-2-1,
 * CIE 15, and Sharma, Wu and Dalal (2005) for the difference. All values are immutable.
 */
package dev.tranche.core.colour;
