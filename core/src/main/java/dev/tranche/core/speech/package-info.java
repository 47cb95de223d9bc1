/**
 * How the core speaks with whoever calls it: it refuses in a sentence ({@link dev.tranche.core.speech.Refusal}), says how
 * far long work is and stops when told ({@link dev.tranche.core.speech.Progress}), and how bad a finding is. Here is also
 * how sentences hold numbers, and how parts of a sum are rounded so that they add up.
 */
package dev.tranche.core.speech;
