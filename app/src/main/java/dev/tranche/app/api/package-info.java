/**
 * The HTTP interface: a model or a plan in, its ledger out; sliced G-code in, the same with swaps out. Nothing that is sent
 * is kept.
 */
package dev.tranche.app.api;
