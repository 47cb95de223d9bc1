/**
 * The measures of the trade as values that cannot be wrong: heights in whole micrometres, volumes of plastic, filament of
 * a given diameter, mass. Each has {@code of…} and {@code parse} factories that refuse what cannot be, with one sentence
 * holding the offending value.
 */
package dev.tranche.core.units;
