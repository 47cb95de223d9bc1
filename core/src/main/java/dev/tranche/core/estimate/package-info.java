/**
 * What a plan costs: time from sliced G-code or from the model, swaps, purge, plastic and money, each figure with
 * the derivation a screen can open.
 */
package dev.tranche.core.estimate;
